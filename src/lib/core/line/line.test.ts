import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readSheet } from '../harmony/sheet';
import { systemOf } from '../neck/systems/registry';
import { STANDARD } from '../neck/tuning';
import { arrange } from '../plan/arrange';
import { DEFAULT_PLAN } from '../plan/model';
import { midiOf } from '../theory/note';
import { endOf, noteOf, ordered, TICKS, ticksOf, type LineNote } from './model';
import { readLine } from './read';
import { beatSwing, sounding } from './sound';

/** "D4 1, Eb4 .5, - 1": notes and rests one after another, lengths in beats; "from D4" behind a note bends it. */
function notes(text: string, at = 0): LineNote[] {
  let start = at;
  return text.split(',').flatMap((word): LineNote[] => {
    const [name, length, ...how] = word.trim().split(/\s+/);
    const beats = Number(length);
    const from = start;
    start += beats;
    if (name === '-') return [];
    const note = noteOf(ticksOf(from), ticksOf(beats), midiOf(name!)!);
    return [how[0] === 'slide' ? { ...note, slide: true } : how[0] === 'tie' ? { ...note, tie: true } : note];
  });
}

function read(chart: string, line: string, at = 0) {
  const sheet = readSheet(chart);
  const { analysis, chosen } = arrange({ sheet, plan: DEFAULT_PLAN }, STANDARD, systemOf('positions'));
  const own = { meter: sheet.head.meter, notes: notes(line, at) };
  return readLine(own, { form: sheet.form, analysis, chosen });
}
const roles = (chart: string, line: string) => read(chart, line).notes.map(({ role }) => role);

describe('written time', () => {
  it('is whole ticks: thirds and sixths of a beat as players write them', () => {
    expect([0.3333, 0.333, 0.33, 0.6667, 0.5, 0.25, 1 / 6, 2.1667].map(ticksOf)).toEqual([
      320, 320, 320, 640, 480, 240, 160, 2080
    ]);
  });

  it('keeps lines in order, of a double stop the lower note first', () => {
    const line = ordered([noteOf(960, 480, 64), noteOf(0, 480, 60), noteOf(960, 480, 60)]);
    expect(line.map(({ start, midi }) => [start, midi])).toEqual([
      [0, 60],
      [960, 60],
      [960, 64]
    ]);
  });
});

describe('how a line sounds', () => {
  const changes = [
    { start: 0, beats: 2 },
    { start: 2, beats: 2 }
  ];
  it('swings eighths and leaves triplets, sixteenths and the ends of chords as written', () => {
    const eighths = notes('C4 .5, D4 .5, E4 .5, F4 .5');
    expect(sounding(eighths, changes, beatSwing(2 / 3)).map(({ start }) => Number(start.toFixed(3)))).toEqual(
      [0, 0.667, 1, 1.667]
    );
    const triplets = notes('C4 .3333, D4 .3333, E4 .3334, F4 .5, G4 .5');
    expect(
      sounding(triplets, changes, beatSwing(2 / 3)).map(({ start }) => Number(start.toFixed(3)))
    ).toEqual([0, 0.333, 0.667, 1, 1.667]);
    const short = sounding(notes('C4 .5', 1.5), [{ start: 0, beats: 1.5 }, { start: 1.5, beats: 2.5 }], beatSwing(2 / 3)); // prettier-ignore
    expect(short[0]!.start).toBe(1.5);
  });

  it('never lets a note sound past its written end, nor lose its length', () => {
    const lengths = fc.array(fc.constantFrom(0.25, 0.5, 1, 1.5, 1 / 3), { minLength: 1, maxLength: 12 });
    fc.assert(
      fc.property(lengths, fc.constantFrom(0.5, 0.6, 2 / 3), (beats, ratio) => {
        const line = notes(beats.map((one) => `C4 ${one}`).join(', '));
        const total = line.reduce((end, note) => Math.max(end, endOf(note)), 0) / TICKS;
        const played = sounding(line, [{ start: 0, beats: Math.ceil(total) }], beatSwing(ratio));
        played.forEach(({ start, beats: long }, i) => {
          expect(long).toBeGreaterThan(0);
          const next = played[i + 1];
          if (next) expect(start + long).toBeLessThanOrEqual(next.start + 1e-9);
        });
      })
    );
  });
});

describe('reading a line', () => {
  it('counts every note against the chord it is heard on', () => {
    const { notes: heard } = read('{key: Db}\n| Ebm7 | Ab7 |', 'Gb4 1, Bb4 1, Db5 1, Eb5 1, C5 1, Gb4 1');
    expect(heard.map(({ degree }) => degree)).toEqual(['b3', '5', 'b7', '1', '3', 'b7']);
    expect(heard.map(({ change }) => change)).toEqual([0, 0, 0, 0, 1, 1]);
    expect(heard.every(({ role }) => role === 'chord tone')).toBe(true);
  });

  it('hears a note that comes early and lasts over against the chord to come', () => {
    const { notes: heard, landings } = read('{key: Db}\n| Ebm7 | Ab7 |', 'Gb4 3.5, C5 1.5');
    expect(heard[1]).toMatchObject({ change: 1, degree: '3', anticipates: true, role: 'chord tone' });
    expect(landings[1]).toMatchObject({ note: 1, degree: '3', late: -0.5 });
    // One that ends with its chord, or comes a beat early, anticipates nothing.
    expect(read('{key: Db}\n| Ebm7 | Ab7 |', 'Gb4 3.5, C5 .5').notes[1]!.anticipates).toBe(false);
    expect(read('{key: Db}\n| Ebm7 | Ab7 |', 'Gb4 3, C5 2').notes[1]!.anticipates).toBe(false);
  });

  it('an approach into the next chord is one even where the old chord has it', () => {
    // F is the 9 of E flat minor; B natural is foreign; both lead by a semitone into the next first beat.
    const chart = '{key: Db}\n| Ebm7 | Ab7 |';
    expect(read(chart, 'Gb4 3.5, Db5 .5, C5 1').notes[1]).toMatchObject({ role: 'approach', leadsTo: 2 });
    expect(read(chart, 'Gb4 3.5, B4 .5, C5 1').notes[1]).toMatchObject({ role: 'approach', leadsTo: 2 });
    // On the beat, longer than a beat, or by a whole tone it is read on its own chord.
    expect(read(chart, 'Gb4 3, Db5 1, C5 1').notes[1]!.role).toBe('chord tone');
    expect(read(chart, 'Gb4 3.5, Bb4 .5, C5 1').notes[1]!.role).toBe('chord tone');
  });

  it('tells approach, passing, blue, tension, avoid and outside inside a chord', () => {
    const chart = '{key: F}\n| Fmaj7 | Fmaj7 |';
    // G sharp leads into A on the beat; B natural is the colour of the Lydian and stays one.
    expect(roles(chart, 'F4 .5, G#4 .5, A4 1')[1]).toBe('blue');
    expect(roles(chart, 'C5 .5, C#5 .5, E5 1')[1]).toBe('outside');
    expect(roles('{key: F}\n| Dm7 |', 'A3 .5, C#4 .5, D4 1')[1]).toBe('approach');
    // Into a stronger beat it is an approach, away from one it only passes.
    expect(roles(chart, 'F4 1, G4 1, A4 1')[1]).toBe('approach');
    expect(roles(chart, '- 1, F4 1, G4 1, A4 1')[1]).toBe('passing');
    expect(roles(chart, 'A4 1, Bb4 1, E5 1')[1]).toBe('avoid');
    expect(roles(chart, 'A4 1, Bb4 1, A4 1')[1]).not.toBe('avoid');
    expect(roles(chart, 'C4 1, G4 2, C5 1')[1]).toBe('tension');
    expect(roles('| N.C. | C |', 'C4 1')[0]).toBe('outside');
  });

  it('finds both notes of an enclosure and names their goal', () => {
    const { notes: heard } = read('{key: Bb}\n| Bbmaj7 | Bbmaj7 |', 'D4 1, G4 .5, E4 .5, F4 1');
    expect(heard.slice(1, 3)).toMatchObject([
      { role: 'approach', leadsTo: 3 },
      { role: 'approach', leadsTo: 3 }
    ]);
  });

  it('tells a note that leans on the next from the landing, which is what it leans on', () => {
    // F over C leans on E; the fourth resolves by a semitone within half a beat.
    const leaning = read('| G7 | C |', 'D4 4, F4 .5, E4 3.5');
    expect(leaning.notes.map(({ role, leadsTo }) => [role, leadsTo])).toEqual([
      ['chord tone', undefined],
      ['leaning', 2],
      ['chord tone', undefined]
    ]);
    expect(leaning.landings[1]).toMatchObject({
      note: 2,
      degree: '3',
      by: 'leaning',
      semitones: -1,
      late: 0.5
    });
    // Held for a beat it is no leaning note, and after a rest it leans on nothing.
    expect(read('| C |', 'F4 1, E4 3').notes[0]!.role).not.toBe('leaning');
    expect(read('| C |', 'F4 .5, - .5, E4 3').notes[0]!.role).not.toBe('leaning');
  });

  it('hears an eighth before a change of 6/8 as a push into it', () => {
    const pushed = read('{time: 6/8}\n| C | F |', 'G4 5, A4 4');
    expect(pushed.notes[1]).toMatchObject({ change: 1, degree: '3', anticipates: true });
    // In 4/4 a whole beat before is no push.
    expect(read('| C | F |', 'G4 3, A4 4').notes[1]).toMatchObject({ change: 0, anticipates: false });
  });

  it('reads a pickup against the first change', () => {
    const pickup = read('| C | F |', 'D4 .5, E4 .5, G4 2', -1);
    expect(pickup.notes.map(({ change, degree }) => [change, degree])).toEqual([
      [0, '9'],
      [0, '3'],
      [0, '5']
    ]);
  });

  it('says how each change is landed on', () => {
    const chart = '{key: Bb}\n| Cm7 | F7 | Bbmaj7 | Gm7 | Ebmaj7 | N.C. | D7 | Gm7 |';
    const line =
      'Eb4 3, G4 .5, Ab4 .5, A4 3.5, C#4 .5, D4 4, D4 4, - 2, G4 1, F#4 1, - 4, A4 1, F#4 1, F4 .5, - 1, A4 .5, Bb4 1';
    const { landings } = read(chart, line);
    expect(landings.map(({ change, by }) => `${change} ${by}`)).toEqual([
      '0 silence',
      '1 semitone below',
      '2 semitone below',
      '3 held',
      '4 silence',
      '6 silence',
      '7 semitone below'
    ]);
    expect(landings[4]).toEqual({ change: 4, by: 'silence' });
    expect(landings[1]).toMatchObject({ degree: '3', semitones: 1, late: 0 });
    const leap = read('| Cm7 | F7 |', 'C4 4, A4 1').landings[1];
    expect(leap).toMatchObject({ by: 'leap', semitones: 9 });
    expect(read('| Cm7 | F7 |', 'C4 3, Bb4 .5, G#4 .5, A4 1').landings[1]!.by).toBe('enclosure');
    // Up to half a beat late it is still the landing; later than that the change is met by silence.
    expect(read('| Cm7 | F7 |', 'C4 4, - .5, A4 1').landings[1]).toMatchObject({ degree: '3', late: 0.5 });
    expect(read('| Cm7 | F7 |', 'C4 4, - 1, A4 1').landings[1]).toEqual({ change: 1, by: 'silence' });
  });

  it('counts its figures', () => {
    const { figures } = read('{key: Bb}\n| Cm7 | F7 |', 'C4 1, Eb4 1, G4 1, D4 1, C4 1, - 2, A4 1');
    expect(figures).toMatchObject({
      notes: 6,
      chordTonesOnBeats: 5 / 6,
      landingsOnThirdOrSeventh: 0,
      landingsByStep: 0.5,
      directionChanges: 2,
      largestLeap: 9,
      range: { low: 60, high: 69 },
      longestSilence: 2,
      beginsOnRoot: 0.5,
      beginsOnLowest: 1
    });
    expect(read('| C |', '- 4').figures).toMatchObject({ notes: 0, range: null, chordTonesOnBeats: null });
  });

  it('moves with the music', () => {
    const pitches = fc.array(fc.integer({ min: 50, max: 76 }), { minLength: 1, maxLength: 14 });
    const lengths = fc.array(fc.constantFrom(0.5, 1, 0.25), { minLength: 14, maxLength: 14 });
    const at = (pitch: number[], beats: number[], by: number) => {
      let start = 0;
      return pitch.map((midi, i) => {
        const note = noteOf(ticksOf(start), ticksOf(beats[i]!), midi + by);
        start += beats[i]!;
        return note;
      });
    };
    const readOn = (text: string, line: LineNote[]) => {
      const sheet = readSheet(text);
      const { analysis, chosen } = arrange({ sheet, plan: DEFAULT_PLAN }, STANDARD, systemOf('positions'));
      return readLine({ meter: sheet.head.meter, notes: line }, { form: sheet.form, analysis, chosen });
    };
    fc.assert(
      fc.property(pitches, lengths, (pitch, beats) => {
        const low = readOn('{key: Gm}\n| Am7b5 | D7b9 | Gm6 |', at(pitch, beats, 0));
        const high = readOn('{key: Bbm}\n| Cm7b5 | F7b9 | Bbm6 |', at(pitch, beats, 3));
        expect(high.notes).toEqual(low.notes);
        expect(high.landings).toEqual(low.landings);
      }),
      { numRuns: 60 }
    );
  });

  it('follows each voice of a double stop to the nearer note of the next', () => {
    // A and C sharp into B flat and D: both lead by a semitone, and the landing comes from just below.
    const both = [
      noteOf(ticksOf(3.5), ticksOf(0.5), 57),
      noteOf(ticksOf(3.5), ticksOf(0.5), 61),
      noteOf(ticksOf(4), ticksOf(4), 58),
      noteOf(ticksOf(4), ticksOf(4), 62)
    ];
    const sheet = readSheet('| Fm7 | Bb7 |');
    const { analysis, chosen } = arrange({ sheet, plan: DEFAULT_PLAN }, STANDARD, systemOf('positions'));
    const { notes: read, landings } = readLine(
      { meter: sheet.head.meter, notes: both },
      { form: sheet.form, analysis, chosen }
    );
    expect(read.slice(0, 2).map(({ role, leadsTo }) => [role, leadsTo])).toEqual([
      ['approach', 2],
      ['approach', 3]
    ]);
    expect(landings[1]).toMatchObject({ by: 'semitone below', semitones: 1 });
  });
});
