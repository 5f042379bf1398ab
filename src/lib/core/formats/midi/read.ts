/** A Standard MIDI File read: chord names from its markers, each track of one voice as a line. */
import { firstOf, lastOf, sure } from '../../base/list';
import { bisector } from 'd3-array';
import { parseMidi, type MidiData } from 'midi-file';
import { DEFAULT_METER, type Meter } from '../../chart/model';
import { keyOf } from '../../harmony/key-signature';
import { TICKS, type LineNote, noteOf } from '../../line/model';
import { quarterOf } from '../../line/notation';
import { isChord } from '../../theory/chord-reader';
import { counted } from '../../theory/words';
import { centsOf } from './bends';
import { FIRST_BAR } from './file';
import { chartOf, type FoundBar, type FoundChord } from '../chart-of';
import { firstBarLine, harmonyHeard, isTooLong, toldOf, TOO_LONG } from '../heard/harmony';
import type { PlayedNote } from '../heard/sounding';
import { NotReadable } from '../not-readable';
import { oneVoice } from '../one-voice';
import { sorted, type ReadPiece, type Voice } from '../piece';
import type { LeftOut } from '../text/import';

const DRUMS = 9;
const MOST_BARS = 4000;
const MOST_EVENTS = 200_000;
/** Text as it was meant: UTF-8 where it is that, else a letter a byte. */
function textOf(bytes: string): string {
  try {
    const each = Array.from(bytes, (letter) => (letter.charCodeAt(0) & 255).toString(16).padStart(2, '0'));
    return decodeURIComponent(each.map((hex) => `%${hex}`).join(''));
  } catch {
    return bytes;
  }
}

/** An event at its time, in the file's own ticks. */
interface At {
  readonly time: number;
  readonly event: MidiData['tracks'][number][number];
}

/** The chords and voices of a MIDI file. Throws `NotReadable` where it is damaged or holds no notes. */
export function readMidi(bytes: Uint8Array): ReadPiece {
  const { header, tracks } = parsed(bytes);
  if (!header.ticksPerBeat) {
    throw new NotReadable('This MIDI file counts seconds, not beats; save it with beats.');
  }
  if (tracks.reduce((sum, { length }) => sum + length, 0) > MOST_EVENTS) {
    throw new NotReadable(`This MIDI file has more than ${MOST_EVENTS} events; save a part of it.`);
  }
  const timed = tracks.map((events): At[] => {
    let time = 0;
    return events.map((event) => ({ time: (time += event.deltaTime), event }));
  });
  const all = timed.flat().sort((a, b) => a.time - b.time);
  const meters = all.flatMap(({ time, event }) =>
    event.type === 'timeSignature'
      ? [{ time, meter: { beats: event.numerator, unit: event.denominator } as Meter }]
      : []
  );
  const meter = meters[0]?.meter ?? DEFAULT_METER;
  const quarter = quarterOf(meter);
  const ticks = (time: number) => Math.round((time / sure(header.ticksPerBeat, 'ticksPerBeat')) * quarter);
  const left: LeftOut[] = [];
  const voices: Voice[] = [];
  const parts: (readonly PlayedNote[])[] = [];
  timed.forEach((events, i) => {
    const name = events.flatMap(({ event }) => (event.type === 'trackName' ? [textOf(event.text)] : []))[0];
    const { notes, played, drums } = notesOf(events, ticks);
    const called = name?.trim() || `track ${i + 1}`;
    if (drums) left.push({ text: called, why: 'drums are no line' });
    const words = events.filter(({ event }) => event.type === 'lyrics').length;
    if (words) left.push({ text: called, why: `${counted(words, 'syllable')} of lyrics left out` });
    for (const { event } of events) {
      if (event.type !== 'text' && event.type !== 'copyrightNotice') continue;
      const text = textOf(event.text).trim();
      if (text) left.push({ text: text.slice(0, 80), why: 'a text that a chart has no room for' });
    }
    const line = oneVoice(called, notes);
    left.push(...line.left);
    // A file of one track keeps its parts on channels.
    const channels = [...new Set(played.map(({ channel }) => channel))];
    parts.push(...channels.map((channel) => played.filter((note) => note.channel === channel)));
    if (line.notes) voices.push({ name: called, notes: line.notes });
  });
  const names = all.flatMap(({ time, event }): FoundChord[] =>
    event.type === 'marker' || event.type === 'cuePoint'
      ? [{ start: ticks(time), symbol: textOf(event.text).trim() }]
      : []
  );
  const lead = names.find(({ symbol }) => symbol === FIRST_BAR)?.start ?? 0;
  const marked = names.filter(({ symbol }) => isChord(symbol));
  const marks = names.filter(({ symbol }) => symbol !== FIRST_BAR).length - marked.length;
  if (marks)
    left.push({
      text: '',
      why: `${counted(marks, 'marker')} in it ${marks === 1 ? 'is' : 'are'} no chord symbol`
    });
  const end = Math.max(
    ticks(all.at(-1)?.time ?? 0),
    ...voices.map(({ notes }) => lastOf(notes).start + lastOf(notes).length)
  );
  const barsFrom = (from: number) =>
    barsOf(
      meters.map(({ time, meter: own }) => ({ start: Math.max(0, ticks(time) - from), meter: own })),
      meter,
      end - from
    );
  const tempo = all.flatMap(({ event }) => (event.type === 'setTempo' ? [event.microsecondsPerBeat] : []))[0];
  const signature = all.flatMap(({ event }) => (event.type === 'keySignature' ? [event] : []))[0];
  const declared = (signature && keyOf(signature.key, signature.scale === 1)) ?? undefined;
  const partsFrom = (from: number) =>
    parts.map((notes) => notes.map((note) => ({ ...note, start: note.start - from })));
  // Names that somebody wrote are better than those that notes are given.
  const late = marked.length ? 0 : firstBarLine(barsFrom(lead), partsFrom(lead));
  const start = lead + late;
  const bars = marked.length ? barsFrom(start) : withoutTail(barsFrom(start), partsFrom(start).flat());
  const heard = marked.length ? null : harmonyHeard(bars, partsFrom(start), declared);
  const told = toldOf(heard);
  left.push(...told.left);
  if (late) {
    left.push({
      text: '',
      why: `Bar lines were moved by ${counted(late / TICKS, 'beat')} to where the chords change; what comes before is a pickup`
    });
  }
  const chords =
    heard?.chords ?? marked.map((chord) => ({ ...chord, start: Math.max(0, chord.start - start) }));
  const found = chartOf(
    {
      title: firstOf(timed).flatMap(({ event }) =>
        event.type === 'trackName' ? [textOf(event.text)] : []
      )[0],
      key: heard?.key ?? declared,
      tempo: tempo ? (60e6 / tempo) * (meter.unit / 4) : undefined,
      bars,
      chords,
      folds: true,
      ...told.said
    },
    TICKS
  );
  const none =
    found.chart === null
      ? [
          {
            text: '',
            why: isTooLong(bars)
              ? TOO_LONG
              : 'There is no chord in it; chords are read from markers, or from what the parts play together.'
          }
        ]
      : [];
  const inTime = voices.map((voice) => ({
    ...voice,
    notes: voice.notes.map((note) => ({ ...note, start: note.start - start }))
  }));
  return {
    chart: found.chart,
    ...sorted(inTime),
    ...(heard ? { sure: heard.sure } : {}),
    left: [...left, ...found.left, ...none]
  };
}

function parsed(bytes: Uint8Array): MidiData {
  if (String.fromCharCode(...bytes.slice(0, 4)) !== 'MThd')
    throw new NotReadable('It does not begin as a MIDI file does; it is damaged, or no MIDI file.');
  if (isWhole(bytes)) {
    try {
      const data = parseMidi(bytes);
      if (data.tracks.length > 0) return data;
    } catch {
      // What the package says is not for players.
    }
  }
  throw new NotReadable('This MIDI file is damaged or cut off.');
}

/** Every chunk is as long as it says; the package reads past the end of one that is not. */
function isWhole(bytes: Uint8Array): boolean {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let at = 0;
  while (at + 8 <= bytes.length) at += 8 + view.getUint32(at + 4);
  return at === bytes.length;
}

/** The notes of a track as they are written, and as they sound; drums and effects are only noticed. */
function notesOf(events: readonly At[], ticks: (time: number) => number) {
  const notes: LineNote[] = [];
  const played: PlayedOn[] = [];
  const open = new Map<string, { readonly time: number; readonly velocity: number }[]>();
  const wheels = new Map<number, Wheel>();
  const pedals = new Map<number, PedalTurn[]>();
  /** Only what turns it counts: a pedal may be told of with every millimetre. */
  const pressed = (channel: number, turn: PedalTurn) => {
    const turns = pedals.get(channel) ?? [];
    pedals.set(channel, turns);
    if ((turns.at(-1)?.isDown ?? false) !== turn.isDown) turns.push(turn);
  };
  const effects = new Set<number>();
  const wheelOf = (channel: number): Wheel => {
    const own = wheels.get(channel) ?? { range: 2, picked: [127, 127], turns: [] };
    wheels.set(channel, own);
    return own;
  };
  let drums = false;
  const close = (key: string, time: number) => {
    const begun = open.get(key)?.shift();
    if (begun === undefined) return;
    const [from, to] = [ticks(begun.time), ticks(time)];
    if (to <= from) return;
    const [channel, midi] = key.split(':').map(Number) as [number, number];
    notes.push(bentNote(noteOf(from, to - from, midi), wheels.get(channel), begun.time, time));
    if (effects.has(channel)) return;
    played.push({ start: from, length: to - from, midi, level: Math.sqrt(begun.velocity / 127), channel });
  };
  for (const { time, event } of events) {
    if (event.type === 'controller') {
      turnRange(wheelOf(event.channel), event.controllerType, event.value);
      if (event.controllerType === SUSTAIN)
        pressed(event.channel, { time: ticks(time), isDown: event.value >= HALF_DOWN });
    }
    if (event.type === 'programChange' && event.programNumber >= FIRST_EFFECT) effects.add(event.channel);
    if (event.type === 'pitchBend')
      wheelOf(event.channel).turns.push({ time, cents: centsOf(event.value, wheelOf(event.channel).range) });
    if (event.type !== 'noteOn' && event.type !== 'noteOff') continue;
    if (event.channel === DRUMS) {
      drums ||= event.type === 'noteOn';
      continue;
    }
    const key = `${event.channel}:${event.noteNumber}`;
    if (event.type === 'noteOn' && event.velocity > 0)
      open.set(key, [...(open.get(key) ?? []), { time, velocity: event.velocity }]);
    else close(key, time);
  }
  const last = events.at(-1)?.time ?? 0;
  for (const [key, starts] of open) while (starts.length) close(key, last);
  return {
    notes: notes.sort((a, b) => a.start - b.start || a.midi - b.midi),
    played: sustained(played, pedals),
    drums
  };
}

/** A note with the channel that it is played on. */
interface PlayedOn extends PlayedNote {
  readonly channel: number;
}

/** A sustain pedal that goes down or up. */
interface PedalTurn {
  readonly time: number;
  readonly isDown: boolean;
}
const turnAt = bisector(({ time }: PedalTurn) => time).right;

const SUSTAIN = 64;
const HALF_DOWN = 64;
/** General MIDI programs from here on are drums and noises. */
const FIRST_EFFECT = 115;
/** A pedal holds a note for this long at most: nobody hears it for longer under what follows. */
const RINGS = 2 * TICKS;

/** Notes as long as the pedal lets them ring, or until the same pitch is struck again. */
function sustained(
  notes: readonly PlayedOn[],
  pedals: ReadonlyMap<number, readonly PedalTurn[]>
): PlayedOn[] {
  const next = new Map<string, number>();
  return [...notes]
    .sort((a, b) => b.start - a.start)
    .map((note): PlayedOn => {
      const key = `${note.channel}:${note.midi}`;
      const again = next.get(key) ?? Infinity;
      next.set(key, note.start);
      const turns = pedals.get(note.channel) ?? [];
      const end = note.start + note.length;
      const at = turnAt(turns, end);
      if (!turns[at - 1]?.isDown) return note;
      // Turns alternate: the next one is up.
      const up = turns[at]?.time ?? Infinity;
      return { ...note, length: Math.min(up, again, end + RINGS) - note.start };
    })
    .reverse();
}

/** The pitch wheel of a channel. */
interface Wheel {
  /** Semitones to either side. */
  range: number;
  /** The registered parameter that is set now. */
  picked: [number, number];
  readonly turns: { readonly time: number; readonly cents: number }[];
}

function turnRange(wheel: Wheel, controller: number, value: number): void {
  if (controller === 101) wheel.picked = [value, wheel.picked[1]];
  if (controller === 100) wheel.picked = [wheel.picked[0], value];
  if (controller === 6 && wheel.picked[0] === 0 && wheel.picked[1] === 0) wheel.range = value;
}

/** Cents from which a bend is one to another pitch, and from which on it is heard at all. */
const A_PITCH = 75;
const HEARD = 15;
/** Semitones that a string is bent at most. */
const MOST_BENT = 4;

/** A note with what the wheel did to it: bent up, let down again, shaken, curled; or slid into. */
function bentNote(note: LineNote, wheel: Wheel | undefined, start: number, end: number): LineNote {
  const within = wheel?.turns.filter(({ time }) => time >= start && time < end) ?? [];
  // Of several at its start the last counts: the wheel came to rest from the note before.
  const turns = within.filter(({ time }, i) => time !== start || within[i + 1]?.time !== start);
  if (turns.length === 0) return note;
  const cents = turns.map((turn) => turn.cents);
  const [first, last] = [firstOf(cents), lastOf(cents)];
  const top = Math.max(...cents);
  if (Math.abs(first) >= A_PITCH && Math.abs(first) > 50) return { ...note, slide: true };
  const semitones = Math.round((top - HEARD) / 100);
  if (top >= A_PITCH && semitones >= 1 && semitones <= MOST_BENT) {
    const midi = Math.min(127, note.midi + semitones);
    const isBack = last < top - A_PITCH;
    const back = note.midi + Math.round(last / 100);
    const shakes = turnsOver(cents, 100 * semitones);
    return {
      ...noteOf(note.start, note.length, midi),
      bend: { from: note.midi },
      ...(isBack ? { release: { to: back } } : {}),
      ...(shakes >= FEWEST_SHAKES && !isBack ? { vibrato: true } : {})
    };
  }
  if (turnsOver(cents, 0) >= FEWEST_SHAKES) return { ...note, vibrato: true };
  if (top >= HEARD && top <= 50) return { ...note, bend: { from: note.midi, cents: Math.round(top) } };
  return note;
}

const FEWEST_SHAKES = 3;

/** How often a wheel crosses a pitch. */
function turnsOver(cents: readonly number[], pitch: number): number {
  const sides = cents
    .map((own) => Math.sign(Math.abs(own - pitch) < 5 ? 0 : own - pitch))
    .filter((side) => side !== 0);
  return sides.filter((side, i) => i > 0 && side !== sides[i - 1]).length;
}

/** Bars without those at the end in which nothing begins and less than half of which sounds. */
function withoutTail(bars: readonly FoundBar[], notes: readonly PlayedNote[]): readonly FoundBar[] {
  const begun = notes.reduce((last, { start }) => Math.max(last, start), 0);
  const ended = notes.reduce((last, { start, length }) => Math.max(last, start + length), 0);
  const kept = bars.filter(({ start, length }) => start <= begun || start + length / 2 <= ended);
  return kept.length ? kept : bars.slice(0, 1);
}

/** Bars until the end, by the meters where they begin. */
function barsOf(
  meters: readonly { readonly start: number; readonly meter: Meter }[],
  first: Meter,
  end: number
): FoundBar[] {
  const bars: FoundBar[] = [];
  let [start, meter] = [0, first];
  while ((start < end || bars.length === 0) && bars.length < MOST_BARS) {
    meter = meters.findLast((one) => one.start <= start)?.meter ?? meter;
    const length = (meter.beats * quarterOf(first) * 4) / meter.unit;
    bars.push({ start, length, meter });
    start += length;
  }
  return bars;
}
