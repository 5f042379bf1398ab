/** Chord symbols for typesetting: a chord in pieces, with true accidentals. */
import type { Chord } from './chord';
import { MINOR_WORD } from './symbol/suffix';
import { prettyNote, prettySuffix } from './typeset';

/** The pieces of a symbol for typesetting: root, what stays on the line, what is raised, and the bass. */
export interface ChordLabel {
  readonly root: string;
  readonly base: string;
  readonly raised: string;
  readonly bass: string;
}

/** Splits a chord into typeset pieces with true accidentals, keeping the player's own way of writing it. */
export function chordLabel(chord: Chord): ChordLabel {
  const base = new RegExp(`^${MINOR_WORD}(?!aj)`).exec(chord.suffix)?.[0] ?? '';
  const raised = chord.suffix
    .slice(base.length)
    .replace(/^(dim)(?=7|$)/i, '°')
    .replace(/^o(?=7|$)/, '°')
    .replace(/^[ø∅⌀]7?$/i, 'ø7')
    .replace(/^[△∆^]/, 'Δ');
  return {
    root: prettyNote(chord.root),
    base: base === '-' ? '–' : base,
    raised: prettySuffix(raised).replaceAll(/(?<=^|\d)-(?=\d|$)/g, '–'),
    bass: chord.bass ? prettyNote(chord.bass) : ''
  };
}
