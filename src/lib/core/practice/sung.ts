/** The notes of a line as they are played: ties run on, bends and slides glide, landings stand out. */
import { nth } from '../base/list';
import type { Beats } from '../base/units';
import type { LineNote } from '../line/model';
import type { Sounding } from '../line/sound';
import type { SoundEvent } from './events';

/** How loud the notes of a line are. */
const LOUDNESS: Readonly<Record<NonNullable<LineNote['purpose']>, number>> = {
  target: 0.9,
  leave: 0.65,
  run: 0.65,
  approach: 0.75
};

/** Share of its loudness that a ghost note keeps. */
const GHOST = 0.45;

/** How much of a note goes by until a bend, or a slide, has reached its pitch. */
const BENDING = 0.4;
const SLIDING = 0.15;
/** A hammered or pulled note is softer than a struck one. */
const SLURRED = 0.8;
/** Cents to either side. */
const SHAKEN = 22;
/** A touched note is damped after so many beats. */
const TOUCHED = 0.2;
/** Beats: neither takes longer, however long the note. */
const LONGEST_BEND = 0.5;
const LONGEST_SLIDE = 0.15;

/** Events of the part `line`; `times` say when each note sounds. */
export function sungEvents(notes: readonly LineNote[], times: readonly Sounding[]): SoundEvent[] {
  const events: SoundEvent[] = [];
  notes.forEach((note, i) => {
    const { midi, purpose = 'run', tie } = note;
    const { start, beats } = nth(times, i);
    const held = tie ? events.findLastIndex((event) => event.midi === midi) : -1;
    if (held >= 0) {
      const before = nth(events, held);
      events[held] = { ...before, beats: start + beats - before.start };
      return;
    }
    const glide = glideInto(note, notes[i - 1], beats);
    events.push({
      part: 'line',
      start,
      beats: note.ghost ? Math.min(beats, TOUCHED) : beats,
      midi,
      velocity: LOUDNESS[purpose] * (note.ghost ? GHOST : note.slur ? SLURRED : 1),
      ...(glide ? { glide } : {}),
      ...(note.vibrato && !note.ghost ? { vibrato: SHAKEN } : {}),
      ...(note.bend?.cents === undefined ? {} : { curl: note.bend.cents }),
      ...(note.slur ? { isSlurred: true } : {}),
      ...(note.ghost ? { isMuted: true } : {})
    });
  });
  return events;
}

function glideInto(
  { midi, bend, release, slide }: LineNote,
  before: LineNote | undefined,
  beats: Beats
): SoundEvent['glide'] {
  if (bend && bend.cents === undefined) {
    const up = { from: bend.from, beats: Math.min(LONGEST_BEND, beats * BENDING) };
    return release ? { ...up, backTo: release.to } : up;
  }
  if (slide && before && before.midi !== midi) {
    return { from: before.midi, beats: Math.min(LONGEST_SLIDE, beats * SLIDING) };
  }
  return undefined;
}
