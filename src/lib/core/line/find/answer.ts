/** Calls and their answers: a phrase, silence, the same head with another end; and bars of the melody answered by one's own. */
import { firstOf, nth, sure } from '../../base/list';
import type { Ticks } from '../../base/units';
import type { PlayedBar } from '../../chart/unroll';
import { placeNotes } from '../place';
import { endOf, TICKS, ticksOf, type Line, type LineNote } from '../model';
import type { PlannedSlot } from './costs';
import {
  barsOf,
  landingsOf,
  slotLength,
  slotsOf,
  solved,
  stretchesOf,
  type FindWish,
  type FoundLines
} from './find';
import { SLOT_LEVELS } from './levels';
import { rhythmOver, type RhythmSlot } from './rhythm';

/** Bars of melody, and bars of the answer. */
const PHRASE = 2;

/** Beats of the head: half a bar. */
const headOf = ({ start, beats }: PlayedBar) => ticksOf(start + Math.max(1, Math.floor(beats / 2)));

/** Silence after a call and after its answer, in ticks: a beat, half of one in short bars. */
const airOf = ({ beats }: PlayedBar) => (beats >= 3 ? TICKS : TICKS / 2);

/**
 * In each first bar of two a call, then a beat of silence; in the second the same head, rising and falling as it did, with a landing of its
 * own, and more silence. The calls are the cheapest, and so are the answers to them.
 */
export function callAndAnswer(wish: FindWish): FoundLines {
  const stretches = stretchesOf(wish);
  const bars = barsOf(wish, stretches);
  const length = slotLength(wish);
  // A chord that comes in the silence is landed on all the same.
  const landed = new Set(landingsOf(wish, stretches).map(({ start }) => start));
  const rhythm = rhythmOver(bars, {
    ...wish,
    // Both heads are to have the same rhythm.
    density: 'full',
    phrase: 0,
    struck: landed,
    leading: new Set()
  }).filter(({ start }) => {
    const { i, bar } = barAt(bars, start);
    // The answer is shorter than the call, and both leave air.
    const until = i % PHRASE === 0 ? ticksOf(bar.start + bar.beats) - airOf(bar) : headOf(bar) + length;
    return start < until || landed.has(start);
  });
  const called = rhythm.map((slot): RhythmSlot => {
    const { i, bar } = barAt(bars, slot.start);
    const isAnswered = i % PHRASE === 1 && slot.start >= headOf(bar);
    const room = ticksOf(bar.start + bar.beats) - airOf(bar) - slot.start;
    return isAnswered ? { ...slot, length: Math.max(length, Math.min(TICKS, room)) } : slot;
  });
  const slots = slotsOf({ ...SLOT_LEVELS.arpeggio, density: 'full' }, wish, stretches, called);
  const isCall = ({ start }: { readonly start: number }) => barAt(bars, start).i % PHRASE === 0;
  const calls = solved(slots.filter(isCall).map(freeAfterSilence), { ...wish, alternatives: 1 }, stretches);
  const call = calls.lines[0];
  if (!call) return calls;
  const contour = contoursOf(call.notes, bars);
  const fixed = slots.map((slot): PlannedSlot => {
    const own = isCall(slot) && call.notes.find(({ start }) => start === slot.start);
    if (own) {
      const cells = slot.cells.filter(
        ({ midi, string }) => midi === own.midi && string === own.place?.string
      );
      return { ...slot, cells };
    }
    const { i, bar } = barAt(bars, slot.start);
    const sign =
      slot.start < headOf(bar) ? contour.get(i - 1)?.get(slot.start - ticksOf(bar.start)) : undefined;
    return sign === undefined
      ? slot
      : { ...slot, must: (from, to) => Math.sign(to.midi - from.midi) === sign };
  });
  const found = solved(fixed.map(freeAfterSilence), wish, stretches);
  // Where the head cannot rise and fall as it did, it is answered freely.
  const answer = found.lines.length ? found : solved(slots.map(freeAfterSilence), wish, stretches);
  return { ...answer, lines: answer.lines.map((line) => ({ ...line, exact: false })) };
}

function barAt(bars: readonly PlayedBar[], ticks: Ticks) {
  const i = Math.max(
    0,
    bars.findLastIndex(({ start }) => ticksOf(start) <= ticks)
  );
  return { i, bar: nth(bars, i) };
}

function freeAfterSilence(slot: PlannedSlot, i: number, all: readonly PlannedSlot[]): PlannedSlot {
  const last = all[i - 1];
  return { ...slot, isFree: last !== undefined && last.start + last.length < slot.start };
}

/** For each bar, by the time since its start, whether the line rises into a note, falls or stays. */
function contoursOf(notes: readonly LineNote[], bars: readonly PlayedBar[]) {
  const contours = new Map<number, Map<number, number>>();
  notes.forEach((note, n) => {
    const { i, bar } = barAt(bars, note.start);
    const last = notes[n - 1];
    if (!last || barAt(bars, last.start).i !== i) return;
    const own = contours.get(i) ?? new Map<number, number>();
    contours.set(i, own.set(note.start - ticksOf(bar.start), Math.sign(note.midi - last.midi)));
  });
  return contours;
}

/** Two bars of the melody, two of one's own that start and end on it, and so on. */
export function melodyAndAnswer(melody: Line, wish: FindWish): FoundLines {
  const stretches = stretchesOf(wish);
  const bars = barsOf(wish, stretches);
  const isOwn = (ticks: Ticks) => Math.floor(barAt(bars, ticks).i / PHRASE) % 2 === 1;
  const level = SLOT_LEVELS.arpeggio;
  const own = slotsOf(level, { ...wish, phrase: 0 }, stretches).filter(({ start }) => isOwn(start));
  const soundingAt = (ticks: Ticks) =>
    melody.notes.findLast((note) => note.start <= ticks && endOf(note) > ticks) ??
    melody.notes.find((note) => note.start >= ticks && note.start < ticks + 2 * TICKS);
  const phrase = (slot: PlannedSlot) => Math.floor(barAt(bars, slot.start).i / PHRASE);
  const slots = own.map((slot, i): PlannedSlot => {
    const isStart = !own[i - 1] || phrase(nth(own, i - 1)) !== phrase(slot);
    const isEnd = !own[i + 1] || phrase(nth(own, i + 1)) !== phrase(slot);
    const free = { ...slot, isFree: slot.isFree || isStart };
    const goal = isStart || isEnd ? soundingAt(slot.start) : undefined;
    if (!goal) return free;
    const pool = sure(
      stretches.find(({ change }) => change.index === slot.change),
      'stretches'
    ).pool;
    const cells = pool
      .filter(({ midi }) => midi % 12 === goal.midi % 12)
      .map((cell) => ({ ...cell, kind: 'chord' as const }));
    return cells.length ? { ...free, cells, lands: null } : free;
  });
  const [first, last] = [stretches[0], stretches.at(-1)];
  const sung = melody.notes.filter(
    ({ start }) => first && last && start >= first.from && start < last.end && !isOwn(start)
  );
  const { places, noPlace } = placeNotes(sung, { neck: wish.neck, alternatives: 1 });
  if (!places[0]) {
    return {
      lines: [],
      noLine: { change: wish.from, message: noPlace?.message ?? 'The melody cannot be played.' }
    };
  }
  const answered = solved(slots, wish, stretches);
  if (answered.noLine) return answered;
  const found = answered.lines.length ? answered.lines : [{ notes: [], cost: 0, parts: {}, exact: true }];
  return {
    lines: found.map((line) => ({
      ...line,
      notes: [...firstOf(places).notes, ...line.notes].sort((a, b) => a.start - b.start || a.midi - b.midi)
    }))
  };
}
