import { excerptOf, playedAt, type LoopWish } from '../harmony/excerpt';
import { beatsOf, endOf, ticksOf, type LineNote } from '../line/model';
import { DRILLS } from '../line/drills';
import { areasOf, systemOf } from '../neck/systems/registry';
import { describe, expect, it } from 'vitest';
import { readSheet } from '../harmony/sheet';
import { subjectsOf } from '../moment/moment';
import { areasAt } from '../neck/position-map';
import { readInstrument, STANDARD } from '../neck/tuning';
import { FREE_PATH } from '../targets/options';
import { findTargets } from '../targets/path';
import { FEELS } from './feel';
import { momentsIn, passesOne, practiceRound, type PlanMaterial } from './round';
import { runOver } from './run-over';

const sheet = readSheet('{key: Ab}\n| Bbm7 | Eb7 | Abmaj7 | F7b9 |');
const { analysis, form } = sheet;
const boxes = systemOf('minor-boxes');
const subjects = subjectsOf(
  analysis,
  analysis.changes.map(() => null)
);
const positions = analysis.changes.map(() => 6);
const path = findTargets(analysis, { ...FREE_PATH, degrees: ['3', '7'], position: 6 }).paths[0]!;
const plan: PlanMaterial = {
  analysis,
  neck: STANDARD,
  areas: areasAt(STANDARD, boxes, subjects, positions),
  targets: new Map(path.targets.map((target) => [target.change, target])),
  skeleton: () => null,
  areasUp: (change) => areasOf(STANDARD, boxes, analysis.key, subjects[change]!)
};
const round = (drill: string | null, wish: LoopWish = { kind: 'form' }, neck = STANDARD) =>
  practiceRound({ ...plan, neck }, excerptOf(form, analysis, wish)!, {
    feel: FEELS[0]!,
    drill: drill ? DRILLS.find(({ id }) => id === drill)! : null,
    perBeat: 2,
    tempo: 100,
    seed: 1,
    round: 0,
    isLast: false
  });

describe('a round of practice', () => {
  it('sounds a capo higher where the chart is written as it is fingered, drums as they are', () => {
    const fingered = readInstrument({ capo: 3, capoChords: 'fingered' })!;
    const [plain, raised] = [round('up'), round('up', undefined, fingered)];
    const isDrum = (part: string) => part === 'drums' || part === 'click';
    const pitches = ({ events }: typeof plain, by: number) =>
      events.map(({ part, start, midi }) => `${part} ${start} ${isDrum(part) ? midi : midi + by}`).sort();
    expect(pitches(raised, 0)).toEqual(pitches(plain, 3));
    // What is drawn stays as it is written.
    expect(raised.notes).toEqual(plain.notes);
  });

  it('is the band alone, or with a drill as a part of its own', () => {
    expect(round(null).notes).toEqual([]);
    expect(round(null).events.some(({ part }) => part === 'line')).toBe(false);
    const { notes, times, events } = round('up');
    const line = events.filter(({ part }) => part === 'line');
    expect(line.map(({ start, midi }) => `${start} ${midi}`).sort()).toEqual(
      notes.map(({ midi }, i) => `${times[i]!.start} ${midi}`).sort()
    );
    // Eight eighths a bar, four bars.
    expect(line).toHaveLength(32);
    expect(events.map(({ start }) => start)).toEqual(
      [...events.map(({ start }) => start)].sort((a, b) => a - b)
    );
  });

  it('makes landings louder than what runs between', () => {
    const { notes, events } = round('down');
    const landing = notes.find(({ purpose }) => purpose === 'target')!;
    const running = notes.find(({ purpose }) => purpose === 'run')!;
    const loudness = (start: number) =>
      events.find((event) => event.part === 'line' && event.start === beatsOf(start))!.velocity;
    expect(loudness(landing.start)).toBeGreaterThan(loudness(running.start));
  });

  it('travels up the neck, an area further at each change, to the same degree', () => {
    const { notes, excerpt } = round('travel');
    const changeOf = ({ start }: LineNote) => playedAt(excerpt, beatsOf(start));
    const lowest = [0, 1, 2, 3].map((at) =>
      Math.min(...notes.filter((note) => changeOf(note) === at).map(({ place }) => place!.fret))
    );
    expect(lowest[3]!).toBeGreaterThan(lowest[0]!);
    for (const [at, target] of path.targets.entries()) {
      const landing = notes.find((note) => changeOf(note) === at && note.purpose === 'target')!;
      expect(landing.midi % 12).toBe(target.cell.midi % 12);
    }
  });

  it('sounds a pickup while counting in, then before each later round, where it gives way', () => {
    const at = (start: number, beats: number, midi: number): LineNote => ({
      start: ticksOf(start),
      length: ticksOf(beats),
      midi,
      note: 'C'
    });
    const play = (notes: LineNote[], round: number, isLast = false, wish: LoopWish = { kind: 'form' }) =>
      practiceRound(
        { ...plan, skeleton: () => ({ meter: { beats: 4, unit: 4 }, notes }) },
        excerptOf(form, analysis, wish)!,
        {
          feel: FEELS[0]!,
          drill: DRILLS.find(({ id }) => id === 'approach')!,
          perBeat: 2,
          tempo: 100,
          seed: 1,
          round,
          isLast
        }
      ).notes.map(({ start, midi }) => `${beatsOf(start)} ${midi}`);
    const line = [at(-1, 0.5, 60), at(-0.5, 0.5, 62), at(0, 2, 64)];
    expect(play(line, 0)).toEqual(['-1 60', '-0.5 62', '0 64', '15 60', '15.5 62']);
    expect(play(line, 3)).toEqual(['0 64', '15 60', '15.5 62']);
    expect(play(line, 3, true)).toEqual(['0 64']);
    // A note that lasts to the end is not cut for it.
    expect(play([...line, at(12, 3.5, 65)], 1)).toEqual(['0 64', '12 65', '15.5 62']);
    // It leads into the first bar, and into no other.
    expect(play(line, 0, false, { kind: 'change', change: 2 })).toEqual([]);
  });

  it('brings a line of the form to where its changes stand in what is played, cut at the end', () => {
    // A note on each beat of the four bars; the last of every bar lasts over the bar line.
    const notes = Array.from({ length: 16 }, (_, beat): LineNote => ({
      start: ticksOf(beat),
      length: ticksOf(beat % 4 === 3 ? 2 : 1),
      midi: 48 + beat,
      note: 'C'
    }));
    let asked = 0;
    const skeleton = () => {
      asked++;
      return { meter: { beats: 4, unit: 4 }, notes };
    };
    const over = (wish: LoopWish, drill: string | null = 'approach') =>
      practiceRound({ ...plan, skeleton }, excerptOf(form, analysis, wish)!, {
        feel: FEELS[0]!,
        drill: DRILLS.find(({ id }) => id === drill) ?? null,
        perBeat: 2,
        tempo: 100,
        seed: 1,
        round: 0,
        isLast: false
      }).notes.map(({ start, length, midi }) => `${beatsOf(start)} ${beatsOf(length)} ${midi}`);
    expect(over({ kind: 'form' }, null)).toEqual([]);
    expect(asked, 'a band alone needs no line').toBe(0);
    expect(over({ kind: 'form' })).toHaveLength(16);
    // The last change into the first one: bar four, then bar one.
    expect(over({ kind: 'pair', change: 3 })).toEqual([
      '0 1 60',
      '1 1 61',
      '2 1 62',
      '3 2 63',
      '4 1 48',
      '5 1 49',
      '6 1 50',
      '7 1 51'
    ]);
    // A drone lasts longer than its change: what comes after it in the form does not sound over it.
    expect(over({ kind: 'change', change: 1 })).toEqual(['0 1 52', '1 1 53', '2 1 54', '3 2 55']);
  });

  it('drills an isolated pair and a drone as well', () => {
    const pair = round('alternate', { kind: 'pair', change: 3 });
    expect(pair.notes.map(({ start }) => playedAt(pair.excerpt, beatsOf(start)))).toContain(1);
    const drone = round('up', { kind: 'change', change: 0 });
    expect(drone.notes).toHaveLength(32);
    expect(drone.notes.every((note) => endOf(note) <= ticksOf(16))).toBe(true);
  });
});

describe('a picture that does not glide', () => {
  it('changes where a chord, a note or a quarter of a beat begins, and nowhere else', () => {
    const swung = round('up');
    const moments = momentsIn(swung);
    expect(moments).toEqual([...moments].sort((a, b) => a - b));
    for (const { start } of swung.excerpt.changes) expect(moments).toContain(start);
    for (const { start, beats } of swung.times)
      expect(moments).toEqual(expect.arrayContaining([start, start + beats]));
    expect(passesOne(moments, 1.02, 1.03)).toBe(false);
    expect(passesOne(moments, 1.02, 1.25)).toBe(true);
    // What lies at the end of a frame is seen in it; what lay at its start was seen before.
    expect(passesOne([4], 3.9, 4)).toBe(true);
    expect(passesOne([4], 4, 4.1)).toBe(false);
    expect(passesOne([], 0, 9)).toBe(false);
  });
});

describe('a picture that swings', () => {
  const swinging = practiceRound(plan, excerptOf(form, analysis, { kind: 'form' })!, {
    feel: FEELS.find(({ id }) => id === 'swing')!,
    drill: DRILLS.find(({ id }) => id === 'up')!,
    perBeat: 2,
    tempo: 100,
    seed: 1,
    round: 0,
    isLast: false
  });

  it('stands on each note when it sounds', () => {
    const offBeats = swinging.times.filter(({ start }) => start % 1 > 1e-6);
    expect(offBeats.length).toBeGreaterThan(4);
    for (const [i, { start }] of swinging.times.entries()) {
      expect(swinging.writtenAt(start)).toBeCloseTo(beatsOf(swinging.notes[i]!.start), 6);
    }
  });

  it('goes on without a jump and never back, and stands still in straight feels', () => {
    const straight = round('up');
    let before = -1;
    for (let beat = 0; beat < 8; beat += 0.01) {
      const at = swinging.writtenAt(beat);
      expect(at).toBeGreaterThanOrEqual(before);
      expect(at - before).toBeLessThan(before < 0 ? 2 : 0.021);
      before = at;
      expect(straight.writtenAt(beat)).toBeCloseTo(beat, 9);
    }
  });

  it('has the run over a change where it is written', () => {
    const [change] = swinging.excerpt.changes;
    const run = runOver(swinging, change!);
    expect(run.map(({ at }) => Number((at * 4).toFixed(3)))).toEqual(
      swinging.notes.filter(({ start }) => start < ticksOf(4)).map(({ start }) => beatsOf(start))
    );
    expect(run[0]!.isTarget).toBe(true);
    expect(run.every(({ degree }) => ['1', '9', 'b3', '11', '5', '13', 'b7'].includes(degree))).toBe(true);
  });
});

describe('a melody in the drill’s place', () => {
  it('is heard, swung and moved with the loop, while the drill is still what is shown', () => {
    const melody = {
      meter: { beats: 4, unit: 4 },
      notes: [0, 4, 6.5, 8, 12].map((beat, i): LineNote => ({
        start: ticksOf(beat),
        length: ticksOf(1),
        midi: 60 + i,
        note: 'C'
      }))
    };
    const bars = excerptOf(form, analysis, { kind: 'bars', from: 2, to: 3 })!;
    const sung = practiceRound(plan, bars, {
      feel: FEELS.find(({ id }) => id === 'swing')!,
      drill: DRILLS.find(({ id }) => id === 'up')!,
      sung: melody,
      perBeat: 2,
      tempo: 100,
      seed: 1,
      round: 0,
      isLast: false
    });
    const heard = sung.events.filter(({ part }) => part === 'line');
    expect(heard.map(({ midi, start }) => [midi, Number(start.toFixed(2))])).toEqual([
      [61, 0],
      [62, 2.67],
      [63, 4]
    ]);
    expect(sung.notes.length).toBeGreaterThan(8);
  });
});
