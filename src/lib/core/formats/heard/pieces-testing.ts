/** Twenty pieces of our own in twenty textures. */
import { chordOf } from '../../chart/unroll';
import { firstOf, lastOf, nth } from '../../base/list';
import { pitchClass } from '../../theory/note';
import {
  above,
  bassOf,
  closeFrom,
  type Here,
  type Struck,
  type TestPiece,
  type Texture
} from './heard-testing';

const each = (here: Here, step: number, play: (at: number, i: number) => readonly Struck[]): Struck[] =>
  Array.from({ length: Math.round(here.quarters / step) }, (_, i) => play(here.at + i * step, i)).flat();
const chord = (at: number, length: number, midis: readonly number[], velocity = 75): Struck[] =>
  midis.map((midi) => ({ at, for: length, midi, velocity }));

const held: Texture = (here) => chord(here.at, here.quarters, closeFrom(here, 55));
const bassLong: Texture = (here) => chord(here.at, here.quarters, [above(bassOf(here), 36)], 85);
const rootAndFifth: Texture = (here) =>
  each(here, 2, (at, i) => {
    const fifth = chordOf(here.change).pitchClasses[2] ?? chordOf(here.change).rootPc;
    return chord(at, 1.8, [above(i % 2 && !chordOf(here.change).bass ? fifth : bassOf(here), 36)], 85);
  });

/** A tune that walks in the scale, on a tone of the chord where it begins. */
const tune =
  (low = 67, step = 0.5): Texture =>
  (here) => {
    const tones = chordOf(here.change).pitchClasses;
    let midi = above(nth(tones, Math.floor(here.random() * Math.min(3, tones.length))), low);
    return each(here, step, (at, i) => {
      if (i > 0) {
        const way = here.random() < 0.5 ? 1 : -1;
        const inScale = (one: number) => here.scale.includes(((one % 12) + 12) % 12);
        let next = midi + way;
        while (!inScale(next)) next += way;
        midi = Math.abs(next - low) > 14 ? midi : next;
      }
      return here.random() < 0.15 && i > 0 ? [] : chord(at, step, [midi], 90);
    });
  };
const arpeggio =
  (low: number, step: number, pattern: readonly number[]): Texture =>
  (here) => {
    const tones = closeFrom(here, low);
    const all = [above(bassOf(here), low - 15), ...tones, ...tones.map((midi) => midi + 12)];
    return each(here, step, (at, i) =>
      chord(at, step * 1.2, [nth(all, nth(pattern, i % pattern.length) % all.length)], i === 0 ? 90 : 70)
    );
  };
const stabs =
  (
    at: readonly number[],
    length: number,
    low = 58,
    drop: (here: Here) => readonly number[] = () => []
  ): Texture =>
  (here) =>
    at
      .filter((beat) => beat < here.quarters)
      .flatMap((beat) => chord(here.at + beat, length, closeFrom(here, low, drop(here))));
const rootless = (here: Here) => [chordOf(here.change).rootPc];
/** One voice of the chord, long. */
const voice =
  (n: number, low: number): Texture =>
  (here) =>
    chord(here.at, here.quarters, [
      above(nth(chordOf(here.change).pitchClasses, n % chordOf(here.change).pitchClasses.length), low)
    ]);
const walking: Texture = (here) => {
  const root = above(bassOf(here), 36);
  const goal = above(here.next?.chord?.rootPc ?? chordOf(here.change).rootPc, 36);
  const tones = chordOf(here.change).pitchClasses.map((pc) => above(pc, 36));
  return each(here, 1, (at, i) => {
    const isLast = i === Math.round(here.quarters) - 1;
    const midi =
      i === 0
        ? root
        : isLast
          ? goal + (here.random() < 0.5 ? 1 : -1)
          : nth(tones, Math.floor(here.random() * tones.length));
    return chord(at, 0.95, [midi], 90);
  });
};
const power: Texture = (here) =>
  each(here, 0.5, (at, i) => {
    const root = above(chordOf(here.change).rootPc, 40);
    return i % 8 === 5 ? [] : chord(at, 0.45, [root, root + 7, root + 12], i % 4 === 0 ? 100 : 80);
  });
const riff: Texture = (here) =>
  each(here, 0.5, (at, i) => {
    const third = nth(chordOf(here.change).pitchClasses, 1);
    const [root, fifth] = [chordOf(here.change).rootPc, nth(chordOf(here.change).pitchClasses, 2)];
    return chord(at, 0.5, [above(nth([root, third, fifth, third], i % 4), 64)], 85);
  });
const strummed: Texture = (here) =>
  each(here, 0.5, (at, i) => {
    if (![0, 2, 3, 5, 6].includes(i % 8)) return [];
    const tones = closeFrom(here, 52);
    const strings = [above(bassOf(here), 40), ...tones, firstOf(tones) + 12];
    return strings.map((midi, n) => ({
      at: at + n * 0.02,
      for: 0.6,
      midi,
      velocity: 60 + ((i + n) % 3) * 15
    }));
  });
const oomPah: Texture = (here) =>
  each(here, 1, (at, i) =>
    i % 3 === 0 ? chord(at, 0.9, [above(bassOf(here), 36)], 90) : chord(at, 0.6, closeFrom(here, 57), 65)
  );
const stride: Texture = (here) =>
  each(here, 1, (at, i) => {
    const fifth = nth(chordOf(here.change).pitchClasses, 2);
    return i % 2 === 0
      ? chord(at, 0.9, [above(i % 4 === 0 || chordOf(here.change).bass ? bassOf(here) : fifth, 36)], 90)
      : chord(at, 0.6, closeFrom(here, 55), 70);
  });
const alberti: Texture = (here) => {
  const { rootPc, pitchClasses } = chordOf(here.change);
  const low = above(rootPc, 45);
  const [middle, high] = [above(nth(pitchClasses, 1), low), above(lastOf(pitchClasses), low)];
  return each(here, 0.5, (at, i) => chord(at, 0.5, [nth([low, high, middle, high], i % 4)], 70));
};
const chorale =
  (n: number, low: number): Texture =>
  (here) => {
    const tones = chordOf(here.change).pitchClasses;
    const own = above(nth(tones, n % tones.length), low);
    const goal = here.next?.chord
      ? above(nth(here.next.chord.pitchClasses, n % here.next.chord.pitchClasses.length), low)
      : own;
    // A third is filled by a passing note in the last half beat.
    const between = Math.abs(goal - own) === 3 || Math.abs(goal - own) === 4;
    return between
      ? [
          ...chord(here.at, here.quarters - 0.5, [own]),
          ...chord(here.at + here.quarters - 0.5, 0.5, [own + Math.sign(goal - own) * 2])
        ]
      : chord(here.at, here.quarters, [own]);
  };
const funk: Texture = (here) =>
  each(here, 0.25, (at, i) =>
    [0, 3, 6, 10, 13].includes(i % 16) ? chord(at, 0.2, closeFrom(here, 60, rootless(here)), 70) : []
  );
const funkBass: Texture = (here) =>
  each(here, 0.25, (at, i) => {
    const root = above(chordOf(here.change).rootPc, 36);
    const at16 = [0, 3, 7, 8, 11, 14].indexOf(i % 16);
    return at16 < 0
      ? []
      : chord(at, 0.24, [nth([root, root + 12, root + 10, root, root + 7, root + 10], at16)], 95);
  });
const pedalPoint =
  (note: string): Texture =>
  (here) =>
    each(here, 1, (at) => chord(at, 0.9, [above(pitchClass(note), 36)], 85));

const grid = (text: string, head = '') => `${head}{start_of_grid}\n${text}\n{end_of_grid}\n`;
const TWICE = (row: string) => `${row}\n${row}`;

export const PIECES: readonly TestPiece[] = [
  {
    name: 'triads in the right hand, held',
    chart: grid(TWICE('| Db | Bbm | Gb | Ab |')),
    parts: [
      { name: 'piano', plays: held },
      { name: 'bass', plays: bassLong }
    ]
  },
  {
    name: 'pads, bass and a tune',
    chart: grid('| F#m7 | B7 | Emaj7 | C#m7 |\n| Amaj7 | G#m7 | F#m7 B7 | E6 |'),
    parts: [
      { name: 'pad', plays: held, program: 89 },
      { name: 'bass', plays: rootAndFifth, program: 33 },
      { name: 'lead', plays: tune(), program: 80 }
    ]
  },
  {
    name: 'picked guitar alone',
    chart: grid(TWICE('| G | D/F# | Em | C |')),
    parts: [{ name: 'guitar', plays: arpeggio(55, 0.5, [0, 1, 2, 3, 4, 3, 2, 1]), program: 25 }]
  },
  {
    name: 'broken chords under a tune',
    chart: grid('| Eb | Ab | Bb7 | Eb |\n| Cm | Fm | Bb7 | Eb |'),
    parts: [
      { name: 'left', plays: alberti },
      { name: 'right', plays: tune(70) }
    ]
  },
  {
    name: 'stride',
    chart: grid('| F | D7 | Gm7 | C7 |\n| F | F7 | Bb | Bbm |\n| F/C | D7 | G7 C7 | F |'),
    parts: [
      { name: 'left', plays: stride },
      { name: 'right', plays: tune(68) }
    ],
    isFormat0: true
  },
  {
    name: 'walking bass and rootless chords',
    chart: grid('| Cm7 | F7 | Bbmaj7 | Ebmaj7 |\n| Am7b5 | D7b9 | Gm7 | G7 |\n| Cm7 | F7 | Bbmaj7 | % |'),
    parts: [
      { name: 'bass', plays: walking, program: 32 },
      { name: 'keys', plays: stabs([0, 1.5], 1, 58, rootless) },
      { name: 'horn', plays: tune(65), program: 65 }
    ]
  },
  {
    name: 'power chords and a riff',
    chart: grid(TWICE('| Em | G | D | A |')),
    parts: [
      { name: 'rhythm', plays: power, program: 30 },
      { name: 'lead', plays: riff, program: 29 }
    ]
  },
  {
    name: 'three horns and a bass, a voice each',
    chart: grid('| Abmaj7 | Fm7 | Bbm7 | Eb7 |\n| Cm7 | F7b9 | Bbm7 Eb7 | Ab6 |'),
    parts: [
      { name: 'trumpet', plays: voice(3, 65) },
      { name: 'alto', plays: voice(1, 60) },
      { name: 'trombone', plays: voice(2, 53) },
      { name: 'bass', plays: rootAndFifth }
    ]
  },
  {
    name: 'a waltz',
    chart: grid('| Bb | Gm | Cm | F7 |\n| Dm | G7 | Cm7 F7 F7 | Bb |', '{time: 3/4}\n'),
    parts: [
      { name: 'accordion', plays: oomPah },
      { name: 'fiddle', plays: tune(70) }
    ]
  },
  {
    name: 'six eight, rolled',
    chart: grid(TWICE('| C | E7 | Am | F |\n| Fm | C | G7 | C |'), '{time: 6/8}\n'),
    parts: [
      { name: 'piano', plays: arpeggio(57, 0.5, [0, 1, 2, 3, 4, 2]) },
      { name: 'voice', plays: tune(67, 1) }
    ]
  },
  {
    name: 'a bass that walks down under a chord',
    chart: grid('| Am | Am/G | Fmaj7 | E7 |\n| Am | Am/G | D/F# | F |\n| C | G/B | Am | G |'),
    parts: [
      { name: 'strings', plays: held },
      { name: 'bass', plays: bassLong }
    ]
  },
  {
    name: 'chords over a pedal',
    chart: grid('| D | G/D | A/D | D |\n| Bm/D | G/D | A/D | D |'),
    parts: [
      { name: 'brass', plays: held },
      { name: 'bass', plays: pedalPoint('D') }
    ]
  },
  {
    name: 'strummed, loosely',
    chart: grid(TWICE('| A | E | F#m | D |')),
    parts: [
      { name: 'guitar', plays: strummed, program: 25 },
      { name: 'voice', plays: tune(64) }
    ],
    loose: 0.03
  },
  {
    name: 'short notes and a pedal',
    chart: grid(TWICE('| Gbmaj7 | Ebm7 | Abm7 | Db7 |')),
    parts: [{ name: 'piano', plays: arpeggio(57, 0.25, [0, 1, 2, 3, 4, 5, 6, 5]), pedal: true }]
  },
  {
    name: 'bossa',
    chart: grid(
      '| Dm7 | % | E7b9 | % |\n| Am7 | % | A7 | % |\n| Dm7 | G7 | Cmaj7 | Fmaj7 |\n| Bm7b5 | E7b9 | Am7 | % |'
    ),
    parts: [
      { name: 'guitar', plays: stabs([0, 1.5, 2.5, 3.5], 0.7, 57, rootless) },
      { name: 'bass', plays: rootAndFifth },
      { name: 'flute', plays: tune(69) }
    ]
  },
  {
    name: 'four voices with passing notes',
    chart: grid('| G Em | C D7 | G/B C | D |\n| Em Am | D7 G | C D7 | G |'),
    parts: [
      { name: 'soprano', plays: chorale(0, 67) },
      { name: 'alto', plays: chorale(1, 60) },
      { name: 'tenor', plays: chorale(2, 53) },
      { name: 'bass', plays: bassLong }
    ]
  },
  {
    name: 'a chord for two beats',
    chart: grid('| Dm7 G7 | Em7 A7 | Dm7 G7 | Cmaj7 |\n| Fmaj7 Fm6 | Em7 Ebdim7 | Dm7 G7 | C6 |'),
    parts: [
      { name: 'keys', plays: stabs([0, 1], 0.9, 55) },
      { name: 'bass', plays: walking },
      { name: 'vibes', plays: tune(67) }
    ],
    loose: 0.02
  },
  {
    name: 'a minor blues',
    chart: grid('| Cm7 | % | % | % |\n| Fm7 | % | Cm7 | % |\n| Abmaj7 | G7 | Cm7 | G7 |'),
    parts: [
      { name: 'organ', plays: stabs([0, 0.67, 2.67], 0.6, 58) },
      { name: 'bass', plays: walking },
      { name: 'sax', plays: tune(63, 0.3333) }
    ]
  },
  {
    name: 'funk on two ninths',
    chart: grid(TWICE('| E9 | % | A9 | % |')),
    parts: [
      { name: 'guitar', plays: funk, program: 28 },
      { name: 'bass', plays: funkBass, program: 36 }
    ]
  },
  {
    name: 'loose hands in B major',
    chart: grid(TWICE('| B | G#m7 | C#m7 | F#7 |\n| E | Em6 | B/F# | F#7 |')),
    parts: [
      { name: 'left', plays: rootAndFifth },
      { name: 'right', plays: stabs([0, 1, 2, 3], 0.8, 59) },
      { name: 'voice', plays: tune(70) }
    ],
    loose: 0.06
  }
];
