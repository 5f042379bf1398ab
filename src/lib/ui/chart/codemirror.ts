/** The text editor, with its own undo left out: the workspace's undo covers text and plan alike. */
import { defaultKeymap } from '@codemirror/commands';
import { lintGutter, setDiagnostics, type Diagnostic } from '@codemirror/lint';
import { EditorState } from '@codemirror/state';
import { EditorView, keymap, lineNumbers } from '@codemirror/view';
import type { ChartProblem, Place } from '$lib/core/chart/model';

export interface ChartEditing {
  /** Shows a text (only when it differs from what is there) and marks its problems. */
  show(text: string, problems: readonly ChartProblem[]): void;
  goTo(place: Place): void;
  /** Puts a text where the caret is, over what is selected. */
  insert(text: string): void;
  destroy(): void;
}

const theme = EditorView.theme({
  '&': { height: '100%', backgroundColor: 'transparent', color: 'var(--ink)' },
  '&.cm-focused': { outline: '2px solid var(--next)', outlineOffset: '-2px' },
  '.cm-content': { fontFamily: 'ui-monospace, Menlo, Consolas, monospace', caretColor: 'var(--ink)' },
  '.cm-cursor': { borderLeftColor: 'var(--ink)' },
  '.cm-gutters': { backgroundColor: 'transparent', color: 'var(--soft)', border: 'none' },
  '.cm-selectionBackground, &.cm-focused .cm-selectionBackground': {
    backgroundColor: 'var(--line) !important'
  },
  '.cm-tooltip': { backgroundColor: 'var(--surface)', color: 'var(--ink)', border: '1px solid var(--line)' }
});

export function editChart(
  parent: HTMLElement,
  text: string,
  onInput: (text: string) => void,
  onEscape: () => void,
  /** Asked about a text that is pasted; true where it is looked at first and not put in as it is. */
  onPaste: (text: string) => boolean
): ChartEditing {
  /** True while a text from outside is put in, which is no input of the player's. */
  let isShowing = false;
  const view = new EditorView({
    parent,
    state: EditorState.create({
      doc: text,
      extensions: [
        lineNumbers(),
        lintGutter(),
        theme,
        EditorView.lineWrapping,
        EditorView.contentAttributes.of({ 'aria-label': 'Chart text', spellcheck: 'false', tabindex: '0' }),
        keymap.of([
          {
            key: 'Escape',
            run: () => {
              onEscape();
              return true;
            }
          },
          ...defaultKeymap
        ]),
        EditorView.domEventHandlers({
          paste: (event) => onPaste(event.clipboardData?.getData('text/plain') ?? '')
        }),
        EditorView.updateListener.of((update) => {
          if (update.docChanged && !isShowing) onInput(update.state.doc.toString());
        })
      ]
    })
  });
  view.focus();
  return {
    show(next, problems) {
      const now = view.state.doc.toString();
      if (now !== next) {
        isShowing = true;
        view.dispatch({ changes: { from: 0, to: now.length, insert: next } });
        isShowing = false;
      }
      view.dispatch(
        setDiagnostics(
          view.state,
          problems.flatMap((problem) => diagnostic(view, problem))
        )
      );
    },
    goTo(place) {
      const at = offset(view, place);
      view.dispatch({ selection: { anchor: at, head: at + place.length }, scrollIntoView: true });
      view.focus();
    },
    insert(next) {
      view.dispatch(view.state.replaceSelection(next));
      view.focus();
    },
    destroy: () => view.destroy()
  };
}

function offset(view: EditorView, { line, column }: Place): number {
  const { doc } = view.state;
  const at = doc.line(Math.min(line, doc.lines));
  return Math.min(at.to, at.from + column - 1);
}

function diagnostic(view: EditorView, { place, message }: ChartProblem): Diagnostic[] {
  if (!place) return [];
  const from = offset(view, place);
  const to = Math.min(view.state.doc.length, from + place.length);
  return [{ from, to, severity: 'error', message }];
}
