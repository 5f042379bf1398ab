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
  /** Brings a place into sight and marks it; the focus stays where it is. */
  reveal(place: Place): void;
  focus(): void;
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

interface Doings {
  readonly input: (text: string) => void;
  readonly escape: () => void;
  /** Asked about a text that is pasted; true where it is looked at first and not put in as it is. */
  readonly paste: (text: string) => boolean;
  /** The player has moved the caret; both are counted from 1. */
  readonly caret: (at: { line: number; column: number }) => void;
}

export function editChart(
  parent: HTMLElement,
  text: string,
  { input, escape, paste, caret }: Doings
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
              escape();
              return true;
            }
          },
          ...defaultKeymap
        ]),
        EditorView.domEventHandlers({
          paste: (event) => paste(event.clipboardData?.getData('text/plain') ?? '')
        }),
        EditorView.updateListener.of((update) => {
          if (isShowing) return;
          if (update.docChanged) input(update.state.doc.toString());
          if (!update.selectionSet && !update.docChanged) return;
          const { head } = update.state.selection.main;
          const line = update.state.doc.lineAt(head);
          if (update.view.hasFocus) caret({ line: line.number, column: head - line.from + 1 });
        })
      ]
    })
  });
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
    reveal(place) {
      const at = offset(view, place);
      isShowing = true;
      view.dispatch({
        selection: { anchor: at, head: Math.min(view.state.doc.length, at + place.length) },
        effects: EditorView.scrollIntoView(at, { y: 'nearest' })
      });
      isShowing = false;
    },
    focus: () => view.focus(),
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
