/** Feels as tables: where bass, chords and drums play in a bar. A new feel is one new row. */

/** General MIDI percussion. */
export const DRUMS = { kick: 36, rim: 37, snare: 38, hat: 42, ride: 51, click: 76, accent: 77 } as const;

/** One hit: beat in the bar from 0, loudness. */
type Hit = readonly [at: number, velocity: number];

export interface Feel {
  readonly id: string;
  /** As the player reads it. */
  readonly name: string;
  /** Where the second eighth of a beat falls. */
  readonly swing: number;
  readonly bass: 'walk' | 'root-fifth' | 'boogie' | 'long' | 'held';
  /** Chords in a bar: beat, length in beats, loudness. */
  readonly chords: readonly (readonly [at: number, beats: number, velocity: number])[];
  readonly drums: readonly { readonly drum: keyof typeof DRUMS; readonly hits: readonly Hit[] }[];
}

const every = (step: number, from: number, velocity: number, until = 4): Hit[] =>
  Array.from({ length: Math.ceil((until - from) / step) }, (_, i): Hit => [from + i * step, velocity]);

export const FEELS: readonly Feel[] = [
  {
    id: 'straight',
    name: 'Straight eighths',
    swing: 0.5,
    bass: 'root-fifth',
    chords: [
      [0, 1.5, 0.7],
      [1.5, 0.5, 0.55],
      [2.5, 1, 0.6]
    ],
    drums: [
      {
        drum: 'kick',
        hits: [
          [0, 0.9],
          [2, 0.8],
          [2.5, 0.5]
        ]
      },
      {
        drum: 'snare',
        hits: [
          [1, 0.7],
          [3, 0.7]
        ]
      },
      { drum: 'hat', hits: every(0.5, 0, 0.35) }
    ]
  },
  {
    id: 'swing',
    name: 'Swing',
    swing: 2 / 3,
    bass: 'walk',
    chords: [
      [0, 1.4, 0.6],
      [1.5, 1, 0.6]
    ],
    drums: [
      {
        drum: 'ride',
        hits: [
          [0, 0.55],
          [1, 0.65],
          [1.5, 0.4],
          [2, 0.55],
          [3, 0.65],
          [3.5, 0.4]
        ]
      },
      {
        drum: 'hat',
        hits: [
          [1, 0.5],
          [3, 0.5]
        ]
      },
      { drum: 'kick', hits: every(1, 0, 0.25) }
    ]
  },
  {
    id: 'shuffle',
    name: 'Shuffle',
    swing: 2 / 3,
    bass: 'boogie',
    chords: [
      [0, 0.5, 0.65],
      [1.5, 0.5, 0.6],
      [2.5, 0.5, 0.5]
    ],
    drums: [
      {
        drum: 'kick',
        hits: [
          [0, 0.9],
          [2, 0.8]
        ]
      },
      {
        drum: 'snare',
        hits: [
          [1, 0.75],
          [3, 0.75]
        ]
      },
      { drum: 'hat', hits: every(0.5, 0, 0.4) }
    ]
  },
  {
    id: 'bossa',
    name: 'Bossa, straight',
    swing: 0.5,
    bass: 'root-fifth',
    chords: [
      [0, 1, 0.6],
      [1.5, 1, 0.55],
      [3, 0.5, 0.6]
    ],
    drums: [
      {
        drum: 'kick',
        hits: [
          [0, 0.7],
          [1.5, 0.5],
          [2, 0.7],
          [3.5, 0.5]
        ]
      },
      {
        drum: 'rim',
        hits: [
          [0, 0.5],
          [1.5, 0.5],
          [3, 0.5]
        ]
      },
      { drum: 'hat', hits: every(0.5, 0, 0.3) }
    ]
  },
  {
    id: 'waltz',
    name: 'Waltz',
    swing: 2 / 3,
    bass: 'long',
    chords: [
      [1, 0.8, 0.55],
      [2, 0.8, 0.5]
    ],
    drums: [
      {
        drum: 'ride',
        hits: [
          [0, 0.55],
          [1, 0.5],
          [1.5, 0.35],
          [2, 0.55]
        ]
      },
      {
        drum: 'hat',
        hits: [
          [1, 0.45],
          [2, 0.4]
        ]
      },
      { drum: 'kick', hits: [[0, 0.6]] }
    ]
  },
  {
    id: 'ballad',
    name: 'Ballad',
    swing: 0.6,
    bass: 'long',
    chords: [
      [0, 2, 0.6],
      [2, 2, 0.5]
    ],
    drums: [
      { drum: 'ride', hits: every(1, 0, 0.35) },
      {
        drum: 'hat',
        hits: [
          [1, 0.35],
          [3, 0.35]
        ]
      }
    ]
  },
  {
    id: 'drone',
    name: 'Drone',
    swing: 0.5,
    bass: 'held',
    chords: [[0, 4, 0.6]],
    drums: []
  }
];

/** What charts call their feel, and which one is meant. */
const CALLED: readonly (readonly [RegExp, string])[] = [
  [/bossa|samba|latin/i, 'bossa'],
  [/shuffle/i, 'shuffle'],
  [/waltz/i, 'waltz'],
  [/ballad/i, 'ballad'],
  [/drone|vamp/i, 'drone'],
  [/swing/i, 'swing']
];

/** The feel of a chart by what it says and its meter; straight where it says nothing. */
export function feelOf(said: string | null, beatsInBar: number): Feel {
  const called = CALLED.find(([pattern]) => said && pattern.test(said))?.[1];
  const id = beatsInBar === 3 && (!called || called === 'swing') ? 'waltz' : (called ?? 'straight');
  return FEELS.find((feel) => feel.id === id)!;
}
