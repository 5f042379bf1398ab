/** The routes about lines: request in, core asked, answer out. Contract: docs/api.md. */
import { nth } from '../../core/base/list';
import type { z } from 'zod';
import type { lineNote, lineRequest, placeRequest } from '../../api/requests';
import type { Meter } from '../../core/chart/model';
import { beatsOf, noteOf, ordered, ticksOf, type Line, type LineNote } from '../../core/line/model';
import { inWords } from '../../core/line/in-words';
import { placeNotes, type PlacedNote, type Placing } from '../../core/line/place';
import { readLine, type Ground } from '../../core/line/read';
import { systemOf } from '../../core/neck/systems/registry';
import { soundAt, STANDARD, type Instrument } from '../../core/neck/tuning';
import { arrange } from '../../core/plan/arrange';
import { DEFAULT_PLAN } from '../../core/plan/model';
import { spelledOver } from '../../core/line/spelling';
import { midiName, pitchClass } from '../../core/theory/note';
import { prettyNote } from '../../core/theory/typeset';
import { fail } from '../../api/errors';
import { checkPosition, checkStrings, instrumentFrom, sheetFrom } from './inputs';

type NoteIn = z.infer<typeof lineNote>;

/** Where a pitch of a bend is given in semitones under the note, and not as a pitch of its own. */
const BEND_STEPS = 12;

/** Reads the notes of a request into a line; overlaps of one voice and notes off the neck are told, never mended. */
export function lineFrom(notes: readonly NoteIn[], meter: Meter, neck: Instrument = STANDARD): Line {
  const read = notes.map((note, i): LineNote => {
    const path = `notes.${i}`;
    const midi = note.midi ?? pitchAt(note, neck, path);
    const length = ticksOf(note.beats);
    if (length <= 0) {
      fail(400, { code: 'no-length', message: `Note ${i + 1} has no length; give it some beats.`, path });
    }
    const { string, fret, bend, release } = note;
    if (note.note !== undefined && pitchClass(note.note) !== midi % 12) {
      fail(400, {
        code: 'wrong-name',
        message: `Note ${i + 1} is called ${prettyNote(note.note)} and sounds ${midiName(midi)}; give the name that it sounds, or none.`,
        path: `${path}.note`
      });
    }
    const from = bend && (bend.from < BEND_STEPS ? midi - bend.from : bend.from);
    const to = bend && release && (release.to < BEND_STEPS ? midi - release.to : release.to);
    return {
      ...noteOf(ticksOf(note.at), length, midi),
      ...(note.note === undefined ? {} : { note: note.note, isNamed: true as const }),
      ...(string === undefined || fret === undefined ? {} : { place: { string, fret } }),
      ...(note.tie ? { tie: true } : {}),
      ...(from === undefined
        ? {}
        : { bend: bend?.cents === undefined ? { from } : { from: midi, cents: bend.cents } }),
      ...(to === undefined ? {} : { release: { to } }),
      ...(note.slide ? { slide: true } : {}),
      ...(note.slur ? { slur: true } : {}),
      ...(note.vibrato ? { vibrato: true } : {}),
      ...(note.ghost ? { ghost: true } : {})
    };
  });
  const line = ordered(read);
  line.forEach((note, i) => {
    const next = line.find((other, n) => n > i && other.start > note.start);
    if (!next || next.start >= note.start + note.length) return;
    fail(400, {
      code: 'overlap',
      message: `${midiName(note.midi)} on beat ${shown(note.start)} still sounds when ${midiName(next.midi)} begins on beat ${shown(next.start)}; shorten it, or let both begin together.`,
      path: `notes.${read.indexOf(note)}`
    });
  });
  return { meter, notes: line };
}

const shown = (ticks: number) => Number((beatsOf(ticks) + 1).toFixed(2));

function pitchAt({ string, fret }: NoteIn, neck: Instrument, path: string): number {
  if (string !== undefined && fret !== undefined && string <= neck.strings.length && fret <= neck.frets) {
    return soundAt(neck, string, fret);
  }
  return fail(400, {
    code: 'no-pitch',
    message:
      string === undefined || fret === undefined
        ? 'A note needs a pitch (midi), or a string and a fret.'
        : `String ${string}, fret ${fret} is not on this neck.`,
    path
  });
}

/** POST /api/v1/line */
export function answerLine(input: z.infer<typeof lineRequest>) {
  const sheet = sheetFrom(input.chart, input.key);
  const neck = instrumentFrom(input);
  const line = lineFrom(input.line.notes, sheet.head.meter, neck);
  const { analysis, chosen } = arrange({ sheet, plan: DEFAULT_PLAN }, neck, systemOf('positions'));
  const ground = { form: sheet.form, analysis, chosen };
  const reading = readLine(line, ground);
  const { landings, figures } = reading;
  const last = line.notes.at(-1);
  const end = sheet.form.beats;
  return {
    notes: lineOut(line, ground),
    landings,
    figures: { ...figures, ...handFigures(line.notes, neck) },
    said: inWords(reading, line.notes, analysis.changes),
    ...(last && beatsOf(last.start) >= end
      ? {
          remark: `The line goes on after the chart's ${end} beats; what stands there is heard on its last chord.`
        }
      : {})
  };
}

/** Where the hand is, and how often it moves; nothing where some note has no place. */
function handFigures(notes: readonly LineNote[], neck: Instrument) {
  const best = placeNotes(notes, { neck, keepsPlaces: true, alternatives: 1 }).places[0];
  if (!best) return {};
  return { positions: [...new Set(best.notes.map(({ position }) => position))], shifts: best.shifts };
}

/** A line as it goes out: each note with what it is on its chord. */
export function lineOut(line: Line, ground: Ground) {
  const { notes } = readLine(line, ground);
  return spelledOver(line.notes, notes, ground).map((note, i) => {
    const { change, degree, role, anticipates, leadsTo } = nth(notes, i);
    return {
      ...noteOut(note),
      change,
      degree,
      role,
      ...(anticipates ? { anticipates } : {}),
      ...(leadsTo === undefined ? {} : { leadsTo }),
      ...(note.purpose ? { purpose: note.purpose } : {})
    };
  });
}

export function noteOut({ start, length, midi, note, place, purpose: _, isNamed: _n, ...played }: LineNote) {
  return { at: beatsOf(start), beats: beatsOf(length), midi, note, ...place, ...played };
}

/** POST /api/v1/place */
export function answerPlace(input: z.infer<typeof placeRequest>) {
  const neck = instrumentFrom(input);
  const { position, window, strings, alternatives, weights } = input;
  if (position !== undefined) checkPosition(position, neck);
  if (strings) checkStrings(strings, neck);
  if (window && (window.from > window.to || window.to > neck.frets)) {
    fail(400, {
      code: 'bad-window',
      message: `The window from fret ${window.from} to ${window.to} is not on this neck of ${neck.frets} frets.`,
      path: 'window'
    });
  }
  const line = lineFrom(input.notes, { beats: 4, unit: 4 }, neck);
  const { places, noPlace } = placeNotes(line.notes, {
    neck,
    position,
    window,
    strings,
    alternatives,
    weights
  });
  return {
    places: places.map(placingOut),
    ...(noPlace
      ? { noPlace: { at: beatsOf(nth(line.notes, noPlace.note).start), message: noPlace.message } }
      : {})
  };
}

function placingOut({ notes, cost, shifts }: Placing) {
  return {
    notes: notes.map(placedOut),
    cost,
    shifts
  };
}

/** A note with its place and where the hand is. */
export function placedOut(note: PlacedNote) {
  return { ...noteOut(note), position: note.position };
}
