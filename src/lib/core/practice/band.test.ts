import fc from 'fast-check';
import { kindsOver } from './walk';
import { describe, expect, it } from 'vitest';
import { sure } from '../../testing/sure';
import { excerptOf, playedAt, type Excerpt, type LoopWish } from '../harmony/excerpt';
import { readSheet } from '../harmony/sheet';
import { bandEvents, countIn } from './band';
import type { SoundEvent } from './events';
import { DRUMS, FEELS, feelNamed, feelOf, type Feel } from './feel';
import { WORDS } from './pattern';
import { quarterTempo, swingAt } from './pulse';
import type { Pass } from './stage';

/**
 * What each quality holds, in semitones above the root, written down by hand and not read by the program: tones of which
 * the bass may play any, tensions that the chords have to sound, and what nobody may play.
 */
const QUALITIES: readonly {
  readonly suffix: string;
  readonly tones: readonly number[];
  readonly tensions?: readonly number[];
  readonly never?: readonly number[];
}[] = [
  { suffix: '', tones: [0, 4, 7], never: [3, 10, 11] },
  { suffix: 'm', tones: [0, 3, 7], never: [4, 10, 11] },
  { suffix: '5', tones: [0, 7], never: [3, 4] },
  { suffix: 'dim', tones: [0, 3, 6], never: [4, 7] },
  { suffix: 'aug', tones: [0, 4, 8], never: [7, 3] },
  { suffix: 'sus4', tones: [0, 5, 7], never: [3, 4] },
  { suffix: 'sus2', tones: [0, 2, 7], never: [3, 4] },
  { suffix: '6', tones: [0, 4, 7, 9], never: [10, 11] },
  { suffix: 'm6', tones: [0, 3, 7, 9], never: [4, 10] },
  { suffix: 'maj7', tones: [0, 4, 7, 11], never: [3, 10, 5] },
  { suffix: '7', tones: [0, 4, 7, 10], never: [11, 5] },
  { suffix: 'm7', tones: [0, 3, 7, 10], never: [4, 11] },
  { suffix: 'm7b5', tones: [0, 3, 6, 10], never: [4, 7] },
  { suffix: 'dim7', tones: [0, 3, 6, 9], never: [4, 7, 10] },
  { suffix: 'm(maj7)', tones: [0, 3, 7, 11], never: [4, 10] },
  { suffix: '7sus4', tones: [0, 5, 7, 10], never: [3, 4] },
  { suffix: '7#5', tones: [0, 4, 8, 10], never: [7] },
  { suffix: '7b5', tones: [0, 4, 6, 10], never: [7] },
  { suffix: 'maj7#5', tones: [0, 4, 8, 11], never: [7, 10] },
  { suffix: '9', tones: [0, 4, 7, 10], tensions: [2], never: [1, 3] },
  { suffix: '13', tones: [0, 4, 7, 10], tensions: [2, 9], never: [1, 8] },
  { suffix: '7b9', tones: [0, 4, 7, 10], tensions: [1], never: [2] },
  { suffix: '7#9', tones: [0, 4, 7, 10], tensions: [3], never: [2] },
  { suffix: '7b13', tones: [0, 4, 10], tensions: [8], never: [7, 9] },
  { suffix: '7#11', tones: [0, 4, 7, 10], tensions: [6], never: [5] },
  { suffix: 'maj9', tones: [0, 4, 7, 11], tensions: [2], never: [10] },
  { suffix: 'm11', tones: [0, 3, 7, 10], tensions: [2, 5], never: [4] },
  { suffix: 'maj7#11', tones: [0, 4, 7, 11], tensions: [6], never: [5] },
  { suffix: '7(b9,b13)', tones: [0, 4, 10], tensions: [1, 8], never: [2, 7, 9] },
  { suffix: 'add9', tones: [0, 4, 7], tensions: [2], never: [10, 11] }
];
const ROOTS = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'Gb', 'G', 'Ab', 'A', 'Bb', 'B'];
const METERS = ['4/4', '3/4', '2/4', '5/4', '6/4', '7/4', '6/8', '7/8', '9/8', '12/8', '5/8', '2/2'];
/** Beats that a time may be moved by: late by a hair, or behind as the feel has it. */
const MOVED = 0.04;

const excerpt = (text: string, wish: LoopWish = { kind: 'form' }): Excerpt => {
  const { form, analysis } = readSheet(text);
  return excerptOf(form, analysis, wish)!;
};
const pass = (of: Excerpt, feel: Feel, more: Partial<Pass> = {}): Pass => ({
  excerpt: of,
  feel,
  ratio: swingAt(feel.swing, 120),
  seed: 7,
  round: 0,
  isLast: false,
  ...more
});
const only = (events: readonly SoundEvent[], part: SoundEvent['part']) =>
  events.filter((event) => event.part === part);
const pc = (name: string) => ROOTS.indexOf(name);

describe('the notes of the band', () => {
  const chords = fc.record({
    quality: fc.constantFrom(...QUALITIES),
    root: fc.constantFrom(...ROOTS),
    inversion: fc.option(fc.nat({ max: 3 }), { nil: null, freq: 2 })
  });
  /** A bar with one to three chords, so that they last whole beats and thirds of a bar. */
  const bars = fc.array(fc.array(chords, { minLength: 1, maxLength: 3 }), { minLength: 1, maxLength: 4 });

  it('are those of the symbols, in every feel, meter, inversion and length', () => {
    fc.assert(
      fc.property(
        bars,
        fc.constantFrom(...FEELS.map(({ id }) => id)),
        fc.constantFrom(...METERS),
        fc.nat({ max: 999 }),
        fc.boolean(),
        (written, id, meter, seed, isLast) => {
          const feel = feelNamed(id)!;
          const inBars = written.map((bar) =>
            bar.map(({ quality, root, inversion }) => {
              const bass =
                inversion === null
                  ? pc(root)
                  : (pc(root) + quality.tones[inversion % quality.tones.length]!) % 12;
              return {
                quality,
                root,
                bass,
                symbol: root + quality.suffix + (bass === pc(root) ? '' : `/${ROOTS[bass]!}`)
              };
            })
          );
          const text = `{time: ${meter}}\n| ${inBars.map((bar) => bar.map(({ symbol }) => symbol).join(' ')).join(' | ')} |`;
          const of = excerpt(text);
          const facts = inBars.flat();
          expect(of.changes.map(({ source }) => source.symbol)).toEqual(facts.map(({ symbol }) => symbol));
          const events = bandEvents(pass(of, feel, { seed, isLast }));
          for (const { start, beats, velocity } of events) {
            sure(start).toBeGreaterThanOrEqual(0);
            sure(beats, text).toBeGreaterThan(0.02);
            sure(start + beats).toBeLessThanOrEqual(of.beats + 1e-6);
            sure(velocity).toBeGreaterThan(0);
            sure(velocity).toBeLessThanOrEqual(1);
          }
          of.changes.forEach((change, at) => {
            const { quality, root, bass, symbol } = facts[at]!;
            const end = change.start + change.beats;
            const within = (part: SoundEvent['part']) =>
              only(events, part).filter(({ start }) => start >= change.start - 1e-9 && start < end - 1e-6);
            const above = ({ midi }: SoundEvent) => (midi - pc(root) + 12) % 12;
            const says = `${feel.id} ${meter} ${symbol}`;
            const line = within('bass');
            expect(line[0], says).toMatchObject({ start: change.start });
            sure(line[0]!.midi % 12, says).toBe(bass);
            const nextBass = facts[(at + 1) % facts.length]!.bass;
            // A bass that walks has steps between the tones; its own tests say which.
            const kinds = feel.walks ? kindsOver({ ...change.source, chord: change.source.chord! }) : null;
            line.slice(1).forEach((event, n) => {
              if (kinds) {
                const near =
                  line[n + 2]?.midi ??
                  events.find((one) => one.part === 'bass' && one.start >= end - 1e-6)?.midi;
                const passes = near === undefined || Math.abs(near - event.midi) <= 2;
                sure(kinds[event.midi % 12] !== 'between' || passes, `${says}: bass ${event.midi}`).toBe(
                  true
                );
                return;
              }
              const isTone = quality.tones.includes(above(event)) || event.midi % 12 === bass;
              const leads =
                n === line.length - 2 && [1, 2, 10, 11].includes((event.midi - nextBass + 24) % 12);
              sure(isTone || leads, `${says}: bass ${event.midi} at ${event.start}`).toBe(true);
            });
            const comping = within('chords');
            if (feel.comping) {
              // On the last off-beat before a change the chord to come may sound; everything else is of its own.
              const next = facts[(at + 1) % facts.length]!;
              const allowedIn = ({ quality: { tones, tensions = [] } }: typeof next) => [
                ...tones,
                ...tensions,
                ...(feel.isColoured ? [2, 9] : [])
              ];
              const fits = (event: SoundEvent, of: typeof next) =>
                allowedIn(of).includes((event.midi - pc(of.root) + 24) % 12);
              for (const event of comping) {
                const isLate = end - event.start <= 1.5 + 1e-6;
                const group = comping.filter(({ start }) => Math.abs(start - event.start) < 1e-9);
                const isOwn = group.every((one) => fits(one, facts[at]!));
                const isComing = isLate && group.every((one) => fits(one, next));
                sure(isOwn || isComing, `${says} at ${event.start}`).toBe(true);
              }
              for (const event of line) sure(event.start + event.beats, says).toBeLessThanOrEqual(end + 1e-6);
              return;
            }
            const heard = new Set(comping.map(above));
            const allowed = [
              ...quality.tones,
              ...(quality.tensions ?? []),
              ...(feel.isColoured ? [2, 9] : [])
            ];
            for (const semitones of heard) sure(allowed, says).toContain(semitones);
            for (const semitones of quality.never ?? []) sure([...heard], says).toLack(semitones);
            for (const semitones of quality.tensions ?? []) sure([...heard], says).toContain(semitones);
            // The third (or what suspends it) and the sixth or seventh say the chord.
            for (const semitones of quality.tones) {
              const tells = [2, 3, 4, 5, 9, 10, 11].includes(semitones);
              if (tells) sure([...heard], says).toContain(semitones);
            }
            if (!feel.comping)
              sure(
                comping.filter(({ start }) => start >= change.start && start <= change.start + MOVED).length,
                says
              ).toBeGreaterThanOrEqual(2);
            for (const event of [...line, ...comping]) {
              sure(event.start + event.beats, says).toBeLessThanOrEqual(end + 1e-6);
            }
          });
        }
      ),
      { numRuns: 250 }
    );
  });

  it('leave the root to the bass in seventh chords, and sound an altered chord altered', () => {
    const heard = (symbol: string) => {
      const events = only(
        bandEvents(pass(excerpt(`{key: F}\n| ${symbol} | Fmaj7 |`), feelNamed('swing')!)),
        'chords'
      );
      return new Set(events.filter(({ start }) => start < 4).map(({ midi }) => midi % 12));
    };
    for (const symbol of ['C7', 'C9', 'C13', 'C7b9', 'C7alt', 'Cm7', 'Cmaj7'])
      expect(heard(symbol), symbol).not.toContain(0);
    const altered = [...heard('C7alt')];
    expect(altered).toContain(4);
    expect(altered).toContain(10);
    expect(altered.some((note) => note === 6 || note === 8)).toBe(true);
    expect(altered.some((note) => note === 1 || note === 3)).toBe(true);
    expect(altered).not.toContain(7);
    // Where the bass has another tone, the root is sounded above.
    expect(heard('Cmaj7/E')).toContain(0);
  });

  /** Whether the roots alone can be led round and round so: three major thirds, an octave in all, cannot. */
  function canGoRound(roots: readonly number[]): boolean {
    const register = Array.from({ length: 23 }, (_, i) => 28 + i);
    const isNear = (a: number, b: number) => Math.abs(a - b) <= 7 || Math.abs(a - b) === 12;
    return register.some((first) => {
      if (first % 12 !== roots[0]) return false;
      const reached = [...roots.slice(1), roots[0]!].reduce<number[]>(
        (from, root) =>
          register.filter((midi) => midi % 12 === root && from.some((one) => isNear(one, midi))),
        [first]
      );
      return reached.includes(first);
    });
  }

  it('have a bass that leaps no further than a fifth, the octave apart', () => {
    const roots = fc.array(fc.constantFrom(...ROOTS), { minLength: 2, maxLength: 9 });
    fc.assert(
      fc.property(
        roots,
        fc.constantFrom(...FEELS.map(({ id }) => id)),
        fc.nat({ max: 99 }),
        (names, id, round) => {
          const feel = feelNamed(id)!;
          fc.pre(canGoRound(names.map(pc)));
          const of = excerpt(`| ${names.map((name) => `${name}7`).join(' | ')} |`);
          const line = only(bandEvents(pass(of, feel, { round })), 'bass').map(({ midi }) => midi);
          [...line.slice(1), line[0]!].forEach((midi, i) => {
            const leap = Math.abs(midi - line[i]!);
            expect(leap <= 7 || leap === 12, `${feel.id} ${line.join(' ')}`).toBe(true);
          });
        }
      ),
      { numRuns: 120, examples: [[['E', 'C', 'C', 'Gb', 'Ab'], 'jazz waltz', 97]] }
    );
  });

  it('walk into the next root by a step, the last into the first', () => {
    const of = excerpt('{key: Bb}\n| Cm7 | F7 | Bbmaj7 | Eb/G | Am7b5 |');
    for (let round = 0; round < 6; round++) {
      const line = only(bandEvents(pass(of, feelNamed('swing')!, { round })), 'bass');
      // On every pulse there is a note, and here and there one between them.
      const on = Array.from({ length: 20 }, (_, beat) =>
        line.find(({ start }) => Math.abs(start - beat) < 1e-6)!
      );
      expect(on.every(Boolean)).toBe(true);
      const led = [3, 7, 11, 15, 19].filter((last) =>
        [1, 2, 5, 7].includes(
          Math.abs(on[(last + 1) % 20]!.midi - line.findLast(({ start }) => start < last + 0.99)!.midi)
        )
      );
      expect(led.length, `round ${round}`).toBeGreaterThanOrEqual(4);
    }
  });

  it('move the top voice of the chords little', () => {
    const of = excerpt('{key: Eb}\n| Fm7 | Bb7 | Ebmaj7 | Cm7 | Fm7 | Bb7 | Gm7 | C7 |');
    const tops = of.changes.map(({ start }) =>
      Math.max(
        ...only(bandEvents(pass(of, feelNamed('swing')!)), 'chords')
          .filter((e, _, all) => e.start === all.find((one) => one.start >= start - 0.02)?.start)
          .map(({ midi }) => midi)
      )
    );
    const moves = tops.slice(1).map((top, i) => Math.abs(top - tops[i]!));
    expect(Math.max(...moves)).toBeLessThanOrEqual(5);
  });
});

describe('the meters of the band', () => {
  const grooves = FEELS.filter(({ kit }) => kit !== 'none');

  it.each(METERS)('%s: every bar is played to its end, by drums and chords', (meter) => {
    for (const feel of grooves) {
      for (let round = 0; round < 4; round++) {
        const of = excerpt(`{time: ${meter}}\n| Gm7 | C7 | Fmaj7 | Fmaj7 |`);
        const events = bandEvents(pass(of, feel, { round }));
        for (const bar of of.bars) {
          const drums = only(events, 'drums').filter(
            ({ start }) => start >= bar.start - 1e-6 && start < bar.start + bar.beats - 1e-6
          );
          // Never silent for longer than two beats of the meter (a dotted one in eighths), to the bar's very end.
          const times = [...new Set(drums.map(({ start }) => start)), bar.start + bar.beats].sort(
            (a, b) => a - b
          );
          const longest = Math.max(...times.map((time, i) => time - (times[i - 1] ?? bar.start)));
          const beat = bar.beats / bar.meter.beats;
          expect(longest, `${feel.id} ${meter} bar at ${bar.start}`).toBeLessThanOrEqual(
            (bar.meter.unit >= 8 ? 3 : bar.meter.unit === 2 ? 1 : 2) * beat + MOVED
          );
          expect(
            drums.some(({ start }) => start === bar.start),
            `${feel.id} one`
          ).toBe(true);
        }
      }
    }
  });

  it('change with the chart, whatever note a beat is', () => {
    const of = excerpt('{time: 4/4}\n| G7 |\n{time: 7/8}\n| C7 | C7 |\n{time: 3/4}\n| G7 |');
    expect(of.bars.map(({ start, beats }) => [start, beats])).toEqual([
      [0, 4],
      [4, 3.5],
      [7.5, 3.5],
      [11, 3]
    ]);
    expect(of.beats).toBe(14);
    const clicks = only(bandEvents(pass(of, FEELS[0]!)), 'click');
    expect(clicks.filter(({ midi }) => midi === DRUMS.accent).map(({ start }) => start)).toEqual([
      0, 4, 7.5, 11
    ]);
    expect(clicks).toHaveLength(4 + 7 + 7 + 3);
    // 7/8 falls into two, two and three.
    const grouped = clicks.filter(({ start, velocity }) => start >= 4 && start < 7.5 && velocity > 0.5);
    expect(grouped.map(({ start }) => start)).toEqual([4, 5, 6]);
  });

  it('count in a whole bar of themselves', () => {
    const bar = (meter: string) => excerpt(`{time: ${meter}}\n| C |`).bars[0]!;
    expect(countIn(bar('3/4')).map(({ start }) => start)).toEqual([-3, -2, -1]);
    // What walks in four is counted in halves first.
    const starts = (meter: string, feel: string) =>
      countIn(bar(meter), feelNamed(feel)!).map(({ start }) => start);
    expect(starts('4/4', 'swing')).toEqual([-8, -6, -4, -3, -2, -1]);
    expect(starts('4/4', 'rock')).toEqual([-4, -3, -2, -1]);
    expect(starts('3/4', 'jazz waltz')).toEqual([-3, -2, -1]);
    const six = countIn(bar('6/8'));
    expect(six.map(({ start }) => start)).toEqual([-6, -5, -4, -3, -2, -1]);
    expect(six.filter(({ velocity }) => velocity > 0.5).map(({ start }) => start)).toEqual([-6, -3]);
  });

  it('roll in dotted beats in 6/8, whatever is written as two', () => {
    const of = excerpt('{time: 6/8}\n| C | F |');
    const hats = only(bandEvents(pass(of, feelNamed('rock')!)), 'drums').filter(
      ({ midi, start }) => midi === DRUMS.hat && start < 3
    );
    expect(hats.map(({ start }) => Math.round(start))).toEqual([0, 1, 2]);
  });

  it('swing nothing where eighths are counted, fills neither', () => {
    const of = excerpt('{time: 5/8}\n| C | F |');
    for (let round = 0; round < 12; round++) {
      const taps = only(bandEvents(pass(of, feelNamed('ballad')!, { round, ratio: 0.6 })), 'drums');
      // A fill in two or in three over the last pulse, from its beat on.
      for (const { start } of taps.filter(({ midi, start }) => midi === DRUMS.tap && start >= 8)) {
        const near = [8, 8 + 2 / 3, 9, 9 + 1 / 3].map((time) => start - time);
        expect(
          near.some((late) => late >= 0 && late <= MOVED),
          `tap at ${start}`
        ).toBe(true);
      }
    }
  });

  it('keep the true length of each change in a loop of two', () => {
    const of = excerpt('| Cm7 | F7 Bb7 |', { kind: 'pair', change: 0 });
    expect(of.bars.map(({ beats, meter }) => [beats, meter.beats])).toEqual([
      [4, 4],
      [2, 2]
    ]);
    const long = excerpt('| Cm7 | % | F7 |', { kind: 'pair', change: 0 });
    expect(long.changes.map(({ beats }) => beats)).toEqual([4, 4]);
  });
});

describe('the variety of the band', () => {
  const BLUES = '{key: Bb}\n| Bb7 | Eb7 | Bb7 | % | Eb7 | % | Bb7 | G7 | Cm7 | F7 | Bb7 | F7 |';
  const said = (events: readonly SoundEvent[], part: SoundEvent['part']) =>
    only(events, part)
      .map(({ start, midi }) => `${start.toFixed(1)} ${midi}`)
      .join(' ');

  it.each(FEELS.map(({ id }) => id).filter((id) => id !== 'drone'))(
    '%s: no two of eight rounds are alike in any part, and the same seed gives the same',
    (id) => {
      const of = excerpt(BLUES);
      const round = (n: number, seed = 3) => bandEvents(pass(of, feelNamed(id)!, { round: n, seed }));
      for (const part of ['bass', 'chords', 'drums'] as const) {
        const rounds = Array.from({ length: 8 }, (_, n) => said(round(n), part));
        expect(new Set(rounds).size, part).toBe(8);
      }
      expect(round(5)).toEqual(round(5));
      expect(round(5, 4)).not.toEqual(round(5));
    }
  );

  it('leads into a section with a fill and marks its first beat', () => {
    const of = excerpt(
      '{start_of_grid label="A"}\n| C | F |\n{end_of_grid}\n{start_of_grid label="B"}\n| G | C |\n{end_of_grid}'
    );
    const drums = only(bandEvents(pass(of, feelNamed('rock')!)), 'drums');
    const crashes = drums.filter(({ midi }) => midi === DRUMS.crash).map(({ start }) => start);
    expect(crashes).toEqual([0, 8]);
    // The fill takes the hats' place in the last beat before the section.
    const last = (beat: number) => drums.filter(({ start }) => start >= beat - 1e-6 && start < beat + 1);
    expect(last(7).some(({ midi }) => midi === DRUMS.hat)).toBe(false);
    expect(
      last(7).filter(({ midi }) => [DRUMS.snare, DRUMS.high, DRUMS.mid, DRUMS.floor].includes(midi as 38))
        .length
    ).toBeGreaterThan(1);
    expect(last(3).some(({ midi }) => midi === DRUMS.hat)).toBe(true);
  });

  it('ends inside its last bar where nothing comes after it, and goes on where something does', () => {
    for (const feel of FEELS) {
      const of = excerpt('| C | F | G | C |');
      const ending = bandEvents(pass(of, feel, { isLast: true })).filter(({ part }) => part !== 'click');
      expect(Math.max(...ending.map(({ start }) => start)), feel.id).toBeLessThanOrEqual(15 + MOVED);
      if (feel.kit === 'none') continue;
      const together = ending.filter(({ start }) => start >= 15).map(({ part }) => part);
      expect(new Set(together), feel.id).toEqual(new Set(['bass', 'chords', 'drums']));
      expect(
        ending
          .filter(({ start }) => start >= 15 && start < 16)
          .every(({ part, beats }) => part === 'drums' || beats > 0.9)
      ).toBe(true);
    }
  });

  it('plays a drone as a drone', () => {
    const events = bandEvents(pass(excerpt('| Fm7 |', { kind: 'change', change: 0 }), feelNamed('drone')!));
    expect(only(events, 'drums')).toEqual([]);
    expect(only(events, 'bass')).toHaveLength(1);
    for (const { start, beats } of [...only(events, 'bass'), ...only(events, 'chords')]) {
      expect(start).toBe(0);
      expect(beats).toBeGreaterThan(15);
    }
  });

  it('plays the bass of a bossa with its kick, over a pattern of two bars', () => {
    const of = excerpt('| Am7 | D7 | Gmaj7 | % |');
    const events = bandEvents(pass(of, feelNamed('bossa')!));
    const kick = only(events, 'drums')
      .filter(({ midi }) => midi === DRUMS.kick)
      .map(({ start }) => start);
    for (const { start } of only(events, 'bass').filter(({ start }) => start < 12)) {
      expect(
        kick.some((time) => Math.abs(time - start) <= MOVED),
        `bass at ${start}`
      ).toBe(true);
    }
    const rim = only(events, 'drums')
      .filter(({ midi }) => midi === DRUMS.rim)
      .map(({ start }) => Math.round(start * 2) / 2);
    expect(rim.filter((time) => time < 4)).not.toEqual(
      rim.filter((time) => time >= 4 && time < 8).map((time) => time - 4)
    );
  });

  it('has brushes for ballads, and its own instruments for the rest', () => {
    const drums = new Set(
      only(bandEvents(pass(excerpt(BLUES), feelNamed('ballad')!)), 'drums').map(({ midi }) => midi)
    );
    expect(drums).toContain(DRUMS.swirl);
    expect(drums).not.toContain(DRUMS.hat);
  });
});

describe('swing', () => {
  it('is about two to one at 120, one and a half at 220, even by 300', () => {
    const toOne = (tempo: number) => {
      const ratio = swingAt(2 / 3, tempo);
      return ratio / (1 - ratio);
    };
    expect(toOne(60)).toBeCloseTo(2, 6);
    expect(toOne(120)).toBeCloseTo(2, 6);
    expect(toOne(220)).toBeCloseTo(1.5, 6);
    expect(toOne(300)).toBeCloseTo(1, 6);
    expect(toOne(400)).toBe(1);
    expect(toOne(170)).toBeLessThan(toOne(140));
    expect(swingAt(0.5, 80)).toBe(0.5);
  });

  it('counts quarters, whatever the chart counts', () => {
    const bar = (meter: string) => excerpt(`{time: ${meter}}\n| C |`).bars[0]!;
    expect(quarterTempo(120, bar('4/4'))).toBe(120);
    expect(quarterTempo(180, bar('6/8'))).toBe(90);
    expect(quarterTempo(80, bar('2/2'))).toBe(160);
  });

  it('is the same for every part', () => {
    const of = excerpt('| C7 | F7 | C7 | G7 |');
    const ratio = 0.6;
    const offbeats = bandEvents(pass(of, feelNamed('shuffle')!, { ratio }))
      .filter(({ part }) => part !== 'click')
      .map(({ start }) => start % 1)
      .filter((part) => part > 0.05 && part < 0.95);
    // Only fills play triplets.
    const swings = offbeats.filter((part) => part >= ratio - 1e-6 && part <= ratio + MOVED);
    expect(swings.length).toBeGreaterThan(20);
    expect(swings.length / offbeats.length).toBeGreaterThan(0.9);
  });
});

describe('the table of feels', () => {
  it('has rows as long as its bars', () => {
    for (const feel of FEELS) {
      const pulses = feel.words === WORDS[3] ? 3 : 4;
      const drums = Object.values(feel.drums).flat();
      for (const row of [...drums, ...feel.bass, ...feel.chords]) {
        expect([pulses, 2 * pulses], `${feel.id}: ${row.join(' ')}`).toContain(row.length);
        for (const word of row) expect([1, 2, 3, 4], `${feel.id}: ${row.join(' ')}`).toContain(word.length);
      }
      for (const { rows, pulses: long } of feel.fills) {
        for (const row of Object.values(rows)) expect(row, feel.id).toHaveLength(long);
      }
      for (const row of feel.bass) expect(row.join(' '), feel.id).toMatch(/^R[R85TA=\- ]*$/);
    }
  });

  it('is found by what a chart says and by its meter', () => {
    const four = { beats: 4, unit: 4 };
    const said: readonly (readonly [string, string])[] = [
      ['shuffle', 'shuffle'],
      ['slow ballad', 'ballad'],
      ['half time', 'half-time rock'],
      ['Slow blues', 'slow 12/8 blues'],
      ['funk vamp', 'funk'],
      ['hard rock', 'hard rock'],
      ['gospel', 'gospel 6/8'],
      ['two-step', 'country'],
      ['train beat', 'train'],
      ['son montuno', 'montuno'],
      ['bolero', 'bolero'],
      ['second line', 'second line'],
      ['jazz waltz', 'jazz waltz'],
      ['rock', 'rock'],
      ['medium swing', 'swing'],
      ['bossa', 'bossa'],
      ['samba', 'samba'],
      ['one drop', 'reggae'],
      ['soul', 'soul']
    ];
    for (const [words, id] of said) expect(feelOf(words, four).id, words).toBe(id);
    for (const { id } of FEELS) expect(feelOf(id, four).id).toBe(id);
    expect(feelOf('swing', { beats: 3, unit: 4 }).id).toBe('waltz');
    expect(feelOf(null, four).id).toBe('straight');
    expect(feelOf(null, { beats: 6, unit: 8 }).id).toBe('slow 12/8 blues');
    expect(feelOf(null, { beats: 3, unit: 4 }).id).toBe('waltz');
  });

  it('rests where no chord sounds', () => {
    const of = excerpt('| C | N.C. | F |');
    for (const feel of FEELS) {
      const events = bandEvents(pass(of, feel)).filter(({ part }) => part === 'bass' || part === 'chords');
      expect(
        events.some(({ start }) => playedAt(of, start) === 1),
        feel.id
      ).toBe(false);
    }
  });
});
