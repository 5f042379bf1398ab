/** What heard chords are called: spelled by the key they stand in, over their bass where another tone than the root stays lowest. */
import { entryOf, nth, numberAt } from '../../base/list';
import { accidentalsOf } from '../../harmony/key-signature';
import type { Key } from '../../harmony/key';
import type { Degree } from '../../theory/degree';
import { MODES } from '../../theory/mode';
import { readChord } from '../../theory/chord-reader';
import { pitchClass, plainName, spell, type NoteName, type PitchClass } from '../../theory/note';
import type { HeardStretch } from './chords-heard';
import type { Sounding } from './sounding';

/** The share of a chord over which a tone lies lowest that is written as its bass. */
const BASS_SHARE = 0.6;
/** A bass that goes to the root this often stands on it, whichever of its notes comes first. */
const ROOT_SHARE = 0.25;

/** How much of a pitch in a pulse is none. */
const UNHEARD = 0.02;

/** Steps of a key as roots are written on them: the raised fourth, the others lowered. */
const STEPS: readonly Degree[] = ['1', 'b9', '9', 'b3', '3', '11', '#11', '5', 'b13', '13', 'b7', '7'];
/** Diminished chords that climb into the root above stand on a raised step. */
const RAISED: Readonly<Record<number, Degree>> = { 1: '1', 3: '9', 8: '5' };

/** A pitch class as a root in a key; never with two accidentals. */
export function rootName(pc: PitchClass, key: Key, climbs: boolean): NoteName {
  const up = (pc - pitchClass(key.tonic) + 12) % 12;
  const raised = climbs ? RAISED[up] : undefined;
  const name = raised ? sharpened(spell(key.tonic, raised)) : spell(key.tonic, nth(STEPS, up));
  // Few read F♭ or B♯ as a root but in the keys that have them.
  const isRare = ['Cb', 'Fb', 'E#', 'B#'].includes(name) && Math.abs(accidentalsOf(key)) < 6;
  return name.length > 2 || isRare ? plainName(pc) : name;
}

const sharpened = (name: NoteName) => (name.endsWith('b') ? name.slice(0, -1) : `${name}#`);

/** The symbol of a stretch; `next` is the root that follows. */
export function symbolOf(
  { from, to, row }: HeardStretch,
  pulses: readonly Sounding[],
  key: Key,
  next: PitchClass | null
): string | null {
  if (!row) return null;
  const climbs = /dim|m7b5/.test(row.suffix) && next === (row.root + 1) % 12;
  const root = rootName(row.root, key, climbs);
  const own = pulses.slice(from, to);
  const fifth = (row.root + 7) % 12;
  if (row.suffix === '9sus4' && own.every(({ weights }) => numberAt(weights, fifth) < UNHEARD)) {
    // Without its fifth it is the triad a tone below, over the root: F/G.
    return `${rootName((row.root + 10) % 12, key, false)}/${root}`;
  }
  const bass = bassUnder(own, row.root);
  if (bass === null) return root + row.suffix;
  const reading = readChord(root + row.suffix);
  const tone =
    reading.kind === 'chord' ? reading.chord.notes[reading.chord.pitchClasses.indexOf(bass)] : undefined;
  const name = tone && tone.length < 3 ? tone : rootName(bass, key, false);
  return `${root}${row.suffix}/${name}`;
}

/** The tone that lies under a chord from its beginning and most of the time; null where that is its root, or nothing. */
function bassUnder(pulses: readonly Sounding[], root: PitchClass): PitchClass | null {
  const counts = new Map<number, number>();
  let some = 0;
  for (const { bass } of pulses) {
    if (bass === null) continue;
    some++;
    counts.set(bass, (counts.get(bass) ?? 0) + 1);
  }
  const first = pulses.find(({ bass }) => bass !== null)?.bass ?? null;
  if (first === null || first === root || (counts.get(root) ?? 0) >= ROOT_SHARE * some) return null;
  return entryOf(counts, first) >= BASS_SHARE * some ? first : null;
}

/** Pitch classes of a key, bit n for pitch class n; a minor key has its raised seventh too. */
export function keySet({ tonic, mode }: Key): number {
  const steps = mode === 'minor' ? [...MODES.minor.steps, 11] : MODES[mode].steps;
  return steps.reduce((set, step) => set | (1 << ((pitchClass(tonic) + step) % 12)), 0);
}
