/** The route that moves a line: request in, core asked, answer out. Contract: docs/api.md. */
import { nth } from '../../core/base/list';
import type { z } from 'zod';
import { fail } from '../../api/errors';
import type { moveRequest } from '../../api/requests';
import type { Meter } from '../../core/chart/model';
import { keyText, readKey, type Key } from '../../core/harmony/key';
import { ticksOf, type LineNote } from '../../core/line/model';
import {
  atPitch,
  byDegrees,
  everyOctave,
  laidOut,
  led,
  measureOf,
  measureOfKey,
  nearestShift,
  type How,
  type Measure
} from '../../core/line/move';
import type { PlacedNote } from '../../core/line/place';
import { changeHeardAt } from '../../core/line/read';
import { systemOf } from '../../core/neck/systems/registry';
import { arrange, type Arrangement } from '../../core/plan/arrange';
import { DEFAULT_PLAN } from '../../core/plan/model';
import { homeUp } from '../../core/theory/tonic';
import { checkPosition, chordFrom, instrumentFrom, sheetFrom } from './inputs';
import { lineFrom, placedOut } from './line';

type Input = z.infer<typeof moveRequest>;

/** A line moved, before it is laid on the neck; `to` says where. */
interface Moved {
  readonly to: string;
  readonly notes: readonly LineNote[];
  /** Any octave will do, the nearest first. */
  readonly anyOctave: boolean;
}

const NO_METER: Meter = { beats: 4, unit: 4 };

/** POST /api/v1/move */
export function answerMove(input: Input) {
  const neck = instrumentFrom(input);
  const sheet = input.chart === undefined ? null : sheetFrom(input.chart, input.key);
  const arranged = sheet && arrange({ sheet, plan: DEFAULT_PLAN }, neck, systemOf('positions'));
  const { notes } = lineFrom(input.notes, sheet?.head.meter ?? NO_METER, neck);
  const position = 'position' in input.to ? input.to.position : undefined;
  if (position !== undefined) checkPosition(position, neck);
  const hasPlaces = notes.some(({ place }) => place);
  const where = input.where ?? (hasPlaces && position === undefined ? 'along' : 'in place');
  const lines: { notes: ReturnType<typeof placedOut>[]; to: string }[] = [];
  const left: { to: string; message: string }[] = [];
  const out = (placed: readonly PlacedNote[], to: string, octave: number) =>
    lines.push({ notes: placed.map(placedOut), to: to + octaveSaid(octave) });
  for (const { to, notes: moved, anyOctave } of movedTo(input, notes, arranged)) {
    if (where === 'every octave') {
      const all = everyOctave(notes, moved, { neck, position });
      for (const one of all) out(one.notes, to, one.octave);
      if (all.length === 0) left.push({ to, message: 'The line does not lie there in any octave.' });
      continue;
    }
    const laid = laidOut(notes, moved, { neck, where, position, anyOctave });
    if (laid.notes) out(laid.notes, to, laid.octave);
    else left.push({ to, message: laid.message });
  }
  return { lines, ...(left.length ? { left } : {}) };
}

const octaveSaid = (octave: number) =>
  octave === 0
    ? ''
    : `, ${Math.abs(octave)} octave${Math.abs(octave) > 1 ? 's' : ''} ${octave > 0 ? 'up' : 'down'}`;

/** What the line becomes, by what is asked. */
function movedTo({ to, how }: Input, notes: readonly LineNote[], arranged: Arrangement | null): Moved[] {
  if ('semitones' in to) {
    return [{ to: `${to.semitones} semitones`, notes: up(notes, to.semitones), anyOctave: false }];
  }
  if ('position' in to) return [{ to: `position ${to.position}`, notes, anyOctave: true }];
  if ('keys' in to) return inAllKeys(notes, arranged?.analysis.key ?? null);
  if ('key' in to) {
    const [from, goal] = [keyFrom(to.key.from, 'to.key.from'), keyFrom(to.key.to, 'to.key.to')];
    const [a, b] = [measureOfKey(from), measureOfKey(goal)];
    return [{ to: keyText(goal), notes: remeasured(notes, how, () => [a, b]), anyOctave: true }];
  }
  if ('chord' in to) {
    const [from, goal] = [chordMeasure(to.chord.from), chordMeasure(to.chord.to)];
    return [{ to: to.chord.to, notes: remeasured(notes, how, () => [from, goal]), anyOctave: true }];
  }
  return [toChange(to.change, how, notes, arranged)];
}

const up = (notes: readonly LineNote[], semitones: number) =>
  notes.map((note) => atPitch(note, note.midi + semitones));

/** Every note measured in one harmony and sounded in another. */
function remeasured(
  notes: readonly LineNote[],
  how: How,
  measures: (note: LineNote) => readonly [Measure, Measure]
): LineNote[] {
  const [first] = notes;
  if (!first) return [];
  if (how === 'shifted') {
    const [from, to] = measures(first);
    return up(notes, nearestShift(from.root, to.root));
  }
  const own = notes.map(({ midi }) => midi);
  const between = notes.map(measures);
  const pitches =
    how === 'degrees'
      ? byDegrees(own, between)
      : led(
          own,
          between.map(([, to]) => to.home)
        );
  return notes.map((note, i) => atPitch(note, nth(pitches, i)));
}

/** Up from the key of the chart by semitones, each the short way; without a chart the steps are said. */
function inAllKeys(notes: readonly LineNote[], key: Key | null): Moved[] {
  return Array.from({ length: 12 }, (_, step) => {
    const semitones = nearestShift(0, step);
    return {
      to: key ? keyText(homeUp(key, step)) : `${semitones} semitones`,
      notes: up(notes, semitones),
      anyOctave: true
    };
  });
}

function keyFrom(text: string, path: string): Key {
  return (
    readKey(text) ??
    fail(400, { code: 'bad-key', message: `“${text}” is not a key; write it like Eb or F#m.`, path })
  );
}

/** A chord by itself, with the mode that suits it. */
export function chordMeasure(symbol: string): Measure {
  const chord = chordFrom(symbol);
  const { chosen } = arrange(
    { sheet: sheetFrom(`| ${symbol} |`), plan: DEFAULT_PLAN },
    instrumentFrom({}),
    systemOf('positions')
  );
  return measureOf(chord, chosen[0] ?? null);
}

/** To another change of the chart: in time and in pitch, each note from its own chord to the one as far on. */
function toChange(change: number, how: How, notes: readonly LineNote[], arranged: Arrangement | null): Moved {
  const path = 'to.change';
  if (!arranged)
    fail(400, { code: 'no-chart', message: 'Moving to a change needs the chart.', path: 'chart' });
  const { changes } = arranged.analysis;
  const goal = changes[change];
  if (!goal) {
    const message = `There is no change ${change}; this chart has changes 0 to ${changes.length - 1}.`;
    fail(400, { code: 'no-such-change', message, path });
  }
  const [first] = notes;
  if (!first) return { to: goal.symbol, notes, anyOctave: true };
  const origin = changeHeardAt(first, changes);
  const later = ticksOf(goal.start) - ticksOf(nth(changes, origin).start);
  const measure = (index: number): Measure => {
    const chord = changes[index]?.chord;
    if (chord) return measureOf(chord, arranged.chosen[index] ?? null);
    const message = changes[index]
      ? `Change ${index} has no chord to move to or from.`
      : 'From that change on the chart is too short for the line.';
    return fail(400, { code: 'no-chord', message, path });
  };
  const moved = remeasured(notes, how, (note) => {
    const heard = changeHeardAt(note, changes);
    return [measure(heard), measure(heard + change - origin)];
  });
  return {
    to: goal.symbol,
    notes: moved.map((note) => ({ ...note, start: Math.max(0, note.start + later) })),
    anyOctave: true
  };
}
