/**
 * What is heard when the player asks how something sounds: a note, a grip, a collection, a moment of change, a target line,
 * each over its chord. The same kind of events as the band's, so that the same instruments play them.
 */
import type { Beats, Midi, PitchClass } from '../base/units';
import type { AnalysedChange } from '../harmony/analysis';
import { pitchClass } from '../theory/note';
import { beatsOf, ticksOf, type LineNote } from '../line/model';
import type { SoundEvent } from './events';
import { sungEvents } from './sung';
import { voicingsFor, type Voicing } from './voicing';

/** Something to be heard once. */
export interface Heard {
  readonly events: readonly SoundEvent[];
  /** Its length in beats. */
  readonly beats: Beats;
}

/** A change and what is sounded over it when it begins; null for the chord alone. */
export interface Landing {
  readonly change: AnalysedChange;
  readonly midi: Midi | null;
}

/** Beats that a chord is held under one note. */
const HELD = 3;
/** Beats of a change that are heard in a target line: enough for the step into the next. */
const MOST_OF_A_CHANGE = 2;
/** Beats between the strings of a grip. */
const STRUM = 0.05;
/** Beats of each note of a collection. */
const NOTE = 0.5;
/** The register of the bass begins here, and that of a collection played up. */
const [BASS_FROM, RUN_FROM] = [36, 55];

/** The chord of a change under what is heard, softly. */
function chordUnder(
  change: AnalysedChange,
  voicing: Voicing | null,
  start: number,
  beats: Beats
): SoundEvent[] {
  const { chord } = change;
  if (!chord || !voicing) return [];
  const bass = pitchClass(chord.bass ?? chord.root);
  const low: SoundEvent = { part: 'bass', start, beats, midi: above(BASS_FROM, bass), velocity: 0.7 };
  return [
    low,
    ...voicing.map(({ midi }): SoundEvent => ({ part: 'chords', start, beats, midi, velocity: 0.5 }))
  ];
}

/** The lowest pitch of a pitch class from a pitch on. */
function above(from: number, pc: PitchClass): number {
  return from + ((((pc - from) % 12) + 12) % 12);
}

/** Always the same voicings: nothing is left to chance here. */
const plainVoicings = (changes: readonly AnalysedChange[]) => voicingsFor(changes, false, () => 0.5);

const sung = (start: number, beats: Beats, midi: Midi): SoundEvent => ({
  part: 'line',
  start,
  beats,
  midi,
  velocity: 0.85
});

/** A note over the chord of a change. */
export function noteOver({ change, midi }: Landing): Heard {
  return pathOver([{ change, midi }], HELD);
}

/** Notes of a line over the chord of the change they begin in, as they are written. */
export function passageOver(change: AnalysedChange, notes: readonly LineNote[]): Heard {
  const from = ticksOf(change.start);
  const times = notes.map(({ start, length }) => ({
    start: beatsOf(Math.max(0, start - from)),
    beats: beatsOf(length)
  }));
  const beats = Math.max(change.beats, ...times.map((time) => time.start + time.beats));
  const [voicing] = plainVoicings([change]);
  return { events: [...chordUnder(change, voicing ?? null, 0, beats), ...sungEvents(notes, times)], beats };
}

/** Notes of a line over all the changes they stand over, from the first of those on. */
export function phraseOver(changes: readonly AnalysedChange[], notes: readonly LineNote[]): Heard {
  const from = changes[0]?.start ?? 0;
  // A pickup sounds before the chords begin.
  const lead = Math.max(0, from - Math.min(from, ...notes.map(({ start }) => beatsOf(start))));
  const times = notes.map(({ start, length }) => ({
    start: beatsOf(start) - from + lead,
    beats: beatsOf(length)
  }));
  const voicings = plainVoicings(changes);
  const chords = changes.flatMap((change, i) =>
    chordUnder(change, voicings[i] ?? null, change.start - from + lead, change.beats)
  );
  const last = changes.at(-1);
  const end = last ? last.start + last.beats - from + lead : 0;
  return {
    events: [...chords, ...sungEvents(notes, times)],
    beats: Math.max(end, ...times.map((time) => time.start + time.beats))
  };
}

/** Landing after landing, each over its chord: a moment of change, or a whole target line. */
export function pathOver(landings: readonly Landing[], most = MOST_OF_A_CHANGE): Heard {
  const voicings = plainVoicings(landings.map(({ change }) => change));
  let at = 0;
  const events = landings.flatMap(({ change, midi }, i): SoundEvent[] => {
    const isLast = i === landings.length - 1;
    const beats = isLast ? HELD : Math.min(most, change.beats);
    const start = at;
    at += beats;
    return [
      ...chordUnder(change, voicings[i] ?? null, start, beats),
      ...(midi === null ? [] : [sung(start, beats, midi)])
    ];
  });
  return { events, beats: at };
}

/** The notes of a grip, strummed from the lowest, alone: it is a chord itself. */
export function gripAlone(midis: readonly number[]): Heard {
  const events = [...midis].sort((a, b) => a - b).map((midi, i) => sung(i * STRUM, HELD - i * STRUM, midi));
  return { events, beats: HELD };
}

/** A collection over the chord of a change: from its root up an octave and down again. */
export function collectionOver(change: AnalysedChange, root: number, pitchClasses: readonly number[]): Heard {
  const from = above(RUN_FROM, root);
  const octave = Array.from({ length: 13 }, (_, i) => from + i).filter(
    (midi) => pitchClasses.includes(midi % 12) || midi % 12 === root
  );
  const run = [...octave, ...octave.slice(0, -1).reverse()];
  const beats = run.length * NOTE + 1;
  const [voicing] = plainVoicings([change]);
  return {
    events: [
      ...chordUnder(change, voicing ?? null, 0, beats),
      ...run.map((midi, i) => sung(i * NOTE, i === run.length - 1 ? NOTE + 1 : NOTE, midi))
    ],
    beats
  };
}
