/** What the hand does with notes that have their pitch: bends, curls, slides, slurs, vibrato, ghosts, double stops. Source: docs/music-rules.md, Phrases, Techniques. */
import { nth } from '../../base/list';
import type { Ticks } from '../../base/units';
import { semitonesUp } from '../../theory/note';
import type { Spot } from '../../neck/tuning';
import type { Chance } from '../chance';
import type { LineNote } from '../model';
import type { Sounds } from './sounds';
import type { PhraseRow } from './styles';

/** A note with its pitch and what the phrase knows of it. */
export interface SolvedNote {
  readonly start: Ticks;
  readonly length: Ticks;
  readonly spot: Spot;
  readonly sounds: Sounds;
  /** Of the pulse in which it stands, in ticks. */
  readonly pulse: number;
  readonly isTriple: boolean;
  /** Ticks since the start of its pulse. */
  readonly within: number;
  readonly isGhost: boolean;
  readonly lands: boolean;
  readonly leans: boolean;
  readonly isLast: boolean;
  /** A figure or a pin: left as it is. */
  readonly isFixed: boolean;
}

export interface TechniqueWish {
  readonly row: PhraseRow;
  /** Pitch class of the tonic at a note. */
  readonly tonic: (sounds: Sounds) => number;
  /** Places under the hand. */
  readonly places: readonly Spot[];
  readonly position: number;
  /** Pulses a minute; null where it is not known. */
  readonly tempo: number | null;
  readonly chance: Chance;
}

/** Pulses between two bends. */
const BEND_EVERY = 3;
const LOWEST_BENT_FRET = 3;
const CURL_CENTS = 40;
const SLIDE_FRETS = 3;
const SLUR_FRETS = 4;
/** Slides are asked for at fewer places than slurs. */
const SLIDES_MORE = 1.6;
const AFTER_SLUR = 0.35;
const VIBRATO_PULSES = 1.4;
const SLOW = 70;

type Written = { -readonly [K in keyof LineNote]: LineNote[K] };

/** The notes as they are written and played. */
export function withTechniques(notes: readonly SolvedNote[], wish: TechniqueWish): LineNote[] {
  const { row, chance } = wish;
  const chances = row.techniques;
  const isJazz = row.idiom === 'chords';
  const written: Written[] = [];
  let lastBend = -Infinity;
  let slurred = false;
  notes.forEach((own, i) => {
    const before = notes[i - 1];
    const next = notes[i + 1];
    const last = written.at(-1);
    const note: Written = plain(own);
    const roll = () => chance();
    const isGhost = own.isGhost || (canGhost(own, before, next) && roll() < chances.ghost);
    if (isGhost) {
      written.push({ ...note, ghost: true, purpose: 'run' });
      slurred = false;
      return;
    }
    const isJoined = before !== undefined && before.start + before.length === own.start && !last?.ghost;
    const sameString =
      isJoined && before.spot.string === own.spot.string && before.spot.midi !== own.spot.midi;
    const frets = sameString ? Math.abs(own.spot.fret - before.spot.fret) : Infinity;
    const isFree = !last?.bend || last.bend.cents !== undefined;

    const bend = own.isFixed ? null : bendOf(own, wish);
    const isFar = own.start - lastBend >= BEND_EVERY * own.pulse;
    if (bend && isFar && roll() < chances.bend) {
      note.bend = { from: bend.midi };
      note.place = { string: bend.string, fret: bend.fret };
      if (next && next.spot.midi === bend.midi && next.start === own.start + own.length)
        note.release = { to: bend.midi };
      lastBend = own.start;
      slurred = false;
    } else if (isFree && canSlide(own, before, frets) && roll() < chances.slide * SLIDES_MORE) {
      note.slide = true;
      slurred = false;
    } else if (isFree && sameString && frets <= SLUR_FRETS && before.length <= before.pulse / 2) {
      const isUp = own.spot.midi > before.spot.midi;
      const intoBeat = before.within !== 0 && own.within === 0;
      const weight = isJazz ? (intoBeat ? 1.8 : 0.8) : isUp ? 1.2 : 1.5;
      const isSlurred = roll() < chances.slur * weight * (slurred ? AFTER_SLUR : 1);
      if (isSlurred) note.slur = true;
      slurred = isSlurred;
    } else slurred = false;

    if (!note.bend && canCurl(own, wish) && roll() < chances.curl)
      note.bend = { from: own.spot.midi, cents: CURL_CENTS };
    if (own.length >= VIBRATO_PULSES * own.pulse && roll() < chances.vibrato) note.vibrato = true;
    const lower = own.isLast && !note.bend ? underneath(own, wish) : null;
    if (lower && roll() < chances.doubleStop)
      written.push({ ...plain({ ...own, spot: lower }), purpose: 'run' });
    written.push(note);
  });
  return written;
}

function plain({ start, length, spot, sounds, lands }: SolvedNote): Written {
  return {
    start,
    length,
    midi: spot.midi,
    note: nth(sounds.names, spot.midi % 12),
    place: { string: spot.string, fret: spot.fret },
    purpose: lands ? 'target' : 'run'
  };
}

/** Between eighths, and neither a landing nor an end. */
function canGhost(own: SolvedNote, before: SolvedNote | undefined, next: SolvedNote | undefined): boolean {
  const isOffEighth = own.isTriple ? own.within % (own.pulse / 3) !== 0 : own.within % (own.pulse / 2) !== 0;
  const isPlain = !own.lands && !own.leans && !own.isLast && !own.isFixed;
  return isPlain && isOffEighth && before !== undefined && next !== undefined && !before.leans;
}

/** Where the pitch can be bent to from, on its string; null where it cannot, or is no goal of a bend. */
function bendOf(own: SolvedNote, { row, tonic, places, position, tempo }: TechniqueWish): Spot | null {
  const { spot, sounds, length, pulse } = own;
  const least = tempo !== null && tempo < SLOW ? 0.3 : 0.7;
  if (length < least * pulse || own.leans) return null;
  const pc = spot.midi % 12;
  const inKey = semitonesUp(tonic(sounds), pc);
  const isThird = sounds.ranks[pc] === 'third';
  const by: readonly number[] = isThird
    ? row.id === 'country'
      ? [2]
      : [1]
    : inKey === 10
      ? [2, 1]
      : inKey === 7 || inKey === 0
        ? [2]
        : [];
  for (const semitones of by) {
    const fret = spot.fret - semitones;
    const from = spot.midi - semitones;
    const isInUse = sounds.kinds[from % 12] !== 'chromatic' && sounds.kinds[from % 12] !== 'avoid';
    const isOnString = spot.string <= (semitones === 2 ? 3 : 4);
    const isUnderHand = fret >= Math.max(LOWEST_BENT_FRET, position - 1);
    if (isInUse && isOnString && isUnderHand && places.length > 0)
      return { midi: from, string: spot.string, fret };
  }
  return null;
}

/** The blue third and seventh lean up a little. */
function canCurl({ spot, length, pulse, sounds, isFixed }: SolvedNote, { tonic }: TechniqueWish): boolean {
  const inKey = semitonesUp(tonic(sounds), spot.midi % 12);
  return (
    !isFixed && (inKey === 3 || inKey === 10) && length >= pulse / 2 && spot.fret > 0 && spot.string <= 4
  );
}

function canSlide(own: SolvedNote, before: SolvedNote | undefined, frets: number): boolean {
  if (!before || frets > SLIDE_FRETS || own.spot.fret === 0 || before.spot.fret === 0) return false;
  const { thirds } = own.sounds;
  const rises =
    thirds !== null && before.spot.midi % 12 === thirds.minor && own.spot.midi % 12 === thirds.major;
  return rises || own.lands || own.length >= own.pulse;
}

/** The highest chord tone a third to a sixth below, on one of the next two strings and within reach. */
function underneath({ spot, sounds }: SolvedNote, { places, position }: TechniqueWish): Spot | null {
  // A tone of the chord above another: anything else is an accident.
  if (spot.string > 3 || sounds.kinds[spot.midi % 12] !== 'chord') return null;
  const near = places.filter(
    ({ midi, string, fret }) =>
      string > spot.string &&
      string <= spot.string + 2 &&
      Math.abs(fret - spot.fret) <= 3 &&
      fret >= Math.min(spot.fret, position - 1) &&
      spot.midi - midi >= 3 &&
      spot.midi - midi <= 9 &&
      sounds.kinds[midi % 12] === 'chord' &&
      // The minor third of a chord that has both is a note of its line, not one underneath.
      sounds.thirds?.minor !== midi % 12
  );
  return near.at(-1) ?? null;
}
