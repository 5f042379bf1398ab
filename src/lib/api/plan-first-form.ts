/**
 * Plans as they were stored at first: parallel lists by change, collections by name. Read here, once, into a record per
 * change with collections as facts; nothing else reads a name back.
 */
import type { CollectionFacts } from '../core/approaches/collection';
import { readChord } from '../core/theory/chord-reader';
import { readScale } from '../core/theory/scale';

type Loose = Record<string, unknown>;
type Item = Loose & { readonly change: number };

const isObject = (value: unknown): value is Loose =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

function itemsOf(value: unknown): Item[] {
  return Array.isArray(value)
    ? value.filter((one): one is Item => isObject(one) && typeof one.change === 'number')
    : [];
}

/** A plan of the first form in today's; anything else as it is. Never throws. */
export function fromFirstForm(stored: unknown): unknown {
  if (!isObject(stored) || 'decisions' in stored) return stored;
  const { fixed, choices, overrules, positions, approaches, approach, school, ...kept } = stored;
  // Only the first form has this list; what else has none is no plan.
  if (!Array.isArray(fixed)) return stored;
  const byChange = new Map<number, Loose>();
  const decide = (change: number, part: Loose) => byChange.set(change, { ...byChange.get(change), ...part });
  for (const { change, ...pin } of itemsOf(fixed)) {
    const pins = (byChange.get(change)?.pins as Loose[] | undefined) ?? [];
    decide(change, { pins: [...pins, pin] });
  }
  for (const { change, approach: by, name, then } of itemsOf(choices)) {
    const collection = factsOf(name);
    if (!collection) continue;
    const later = isObject(then) ? factsOf(then.name) : null;
    const over = later ? { then: { beat: (then as Loose).beat, collection: later } } : {};
    decide(change, { choice: { approach: by, collection, ...over } });
  }
  for (const { change, ...reading } of itemsOf(overrules)) decide(change, { reading });
  for (const { change, position } of itemsOf(positions)) decide(change, { position });
  for (const { change, kind } of itemsOf(approaches)) decide(change, { approachNote: kind });
  const decisions = [...byChange]
    .map(([change, part]) => ({ change, ...part }))
    .sort((a, b) => a.change - b.change);
  return {
    ...kept,
    decisions,
    ...(school === undefined ? {} : { approach: school }),
    ...(approach === undefined ? {} : { approachNotes: approach })
  };
}

/** The facts of a collection from the name it was stored by; null where the name says none. */
export function factsOf(name: unknown): CollectionFacts | null {
  if (typeof name !== 'string') return null;
  const scale = readScale(name);
  if (scale) return { kind: 'scale', root: scale.root, type: scale.name };
  const chordOf = (symbol: string | undefined) => {
    const reading = symbol ? readChord(symbol) : null;
    return reading?.kind === 'chord' ? reading.chord : null;
  };
  const [, stacked, start] = /^(\S+) arpeggio(?: from (\S+))?$/.exec(name) ?? [];
  const chord = chordOf(stacked);
  if (chord) {
    const inversion = start ? chord.notes.indexOf(start) : 0;
    const facts = { kind: 'arpeggio', root: chord.root, type: chord.suffix } as const;
    return inversion > 0 ? { ...facts, inversion } : facts;
  }
  const [, root, quality] = /^(\S+) (major|minor|diminished|augmented) triad$/.exec(name) ?? [];
  const triad = chordOf(root);
  if (triad && quality) return { kind: 'triad', root: triad.root, type: quality };
  const guided = chordOf(/^(\S+) guide tones$/.exec(name)?.[1]);
  return guided ? { kind: 'guide tones', root: guided.root, type: guided.suffix } : null;
}
