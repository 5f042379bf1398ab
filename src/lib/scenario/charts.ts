/**
 * The demo songbook: original tunes of the Saltmarsh Four, a made-up quartet that rehearses for a season on a
 * night ferry. Chosen so that every rule of the harmony has a tune of its own.
 */
import type { LevelId } from '../core/line/find/registry';
import type { Plan } from '../core/plan/model';

/** A line that the players have kept, and how it was found. */
export interface DemoLine {
  readonly name: string;
  readonly level: LevelId;
  readonly figure?: string;
  readonly subdivision: number;
  readonly seed: number;
}

export interface DemoChart {
  readonly text: string;
  /** What the players have decided so far; the rest is as for a new chart. */
  readonly plan: Partial<Plan>;
  readonly lines?: readonly DemoLine[];
}

export const DEMO_CHARTS: readonly DemoChart[] = [
  {
    plan: { position: 6, approach: 'blues' },
    lines: [
      { name: 'Thirds in the engine room', level: 'double stops', subdivision: 2, seed: 0 },
      { name: 'Hand over hand', level: 'arpeggio', subdivision: 2, seed: 3 }
    ],
    text: `{title: Bilge Pump Blues}
{tags: first set, opener}
{key: Eb}
{time: 4/4}
{tempo: 132}
{meta: feel shuffle}
{start_of_grid label="Chorus"}
| Eb7 | Ab7 | Eb7 | %      |
| Ab7 | %   | Eb7 | C7b9   |
| Fm7 | Bb7 | Eb7 C7 | Fm7 Bb7 |.
{end_of_grid}
`
  },
  {
    plan: {
      position: 3,
      decisions: [
        { change: 4, pins: [{ string: 3, fret: 3 }] },
        {
          change: 6,
          choice: {
            approach: 'chord-pentatonic',
            collection: { kind: 'scale', root: 'D', type: 'flat-five pentatonic' }
          }
        }
      ]
    },
    lines: [
      { name: 'Down to the porthole', level: 'arpeggio and scale', subdivision: 2, seed: 0 },
      { name: 'First watch', level: 'arpeggio', subdivision: 2, seed: 2 }
    ],
    text: `{title: Cabin Without a Window}
{tags: first set}
{key: Gm}
{time: 4/4}
{tempo: 112}
{meta: feel swing}
{start_of_grid label="A"}
| Gm6   | %    | Am7b5 | D7b9  |
| Gm6   | %    | Dm7b5 | G7b13 |
| Cm7   | F7   | Bbmaj7 | Ebmaj7 |
| Am7b5 | D7alt | Gm6  | Am7b5 D7b9 |.
{end_of_grid}
`
  },
  {
    plan: { position: 5, outline: 14 },
    lines: [
      { name: 'All the way round', level: 'without a stop', subdivision: 2, seed: 0 },
      { name: 'One two three five', level: 'figure', figure: '1 2 3 5', subdivision: 2, seed: 0 }
    ],
    text: `{title: Three Harbours}
{tags: second set}
{key: F}
{time: 4/4}
{tempo: 144}
{meta: feel swing}
{start_of_grid label="A"}
| Fmaj7 | Dm7 | Gm7 | C7 |
| Fmaj7 | Bbmaj7 | Am7b5 | D7b9 |
| Gm7 | C7 | Am7 | D7 |
| Gm7 | C7 | Fmaj7 | % |
{end_of_grid}
{start_of_grid label="B"}
| Bm7 | E7 | Amaj7 | % |
| Am7 | D7 | Gmaj7 | Gmaj7 C7 |
{end_of_grid}
{start_of_grid label="C"}
| Fmaj7 | Dm7 | Gm7 | C7 |
| Am7 D7b9 | Gm7 C7 | F6 | Gm7 C7 |.
{end_of_grid}
`
  },
  {
    // Up the neck and back, a box at each change: the hardest drill.
    plan: {
      position: 3,
      approach: 'chord-pentatonic',
      decisions: [3, 6, 8, 10, 13, 10, 8, 6].map((position, change) => ({ change, position }))
    },
    text: `{title: Lantern on the Stern}
{key: Bb}
{time: 4/4}
{tempo: 96}
{meta: feel straight}
{start_of_grid label="Loop"}
|: Bb | Gm | Eb | F :|
{end_of_grid}
`
  },
  {
    plan: { position: 7 },
    lines: [{ name: 'Call across the water', level: 'call and answer', subdivision: 2, seed: 0 }],
    text: `{title: Four Foghorns}
{time: 4/4}
{tempo: 84}
{meta: feel straight}
{start_of_grid label="Loop"}
|: Emaj7 | Gmaj7 | Bbmaj7 | Dbmaj7 :|
{end_of_grid}
`
  },
  {
    plan: { position: 8 },
    text: `{title: Engine Room at Four}
{tags: first set}
{key: F dorian}
{time: 4/4}
{tempo: 104}
{meta: feel straight}
{start_of_grid label="Vamp"}
|: Fm7 | % | % | % :|
{end_of_grid}
`
  },
  {
    plan: { position: 4 },
    text: `{title: Gangway Steps}
{key: C}
{time: 4/4}
{tempo: 120}
{meta: feel swing}
{start_of_grid label="A"}
| Cmaj7 C#dim7 | Dm7 D#dim7 | Em7 A7 | Dm7 Db7 |
| Cmaj7 | Fmaj7 Fm6 | Em7 Ebdim7 | Dm7 G7 |
{end_of_grid}
{start_of_grid label="B"}
| Fmaj7 | Fm7 Bb7 | Em7 | A7 |
| Dm7 | Db7 | C6 | Dm7 G7 |.
{end_of_grid}
`
  },
  {
    plan: { position: 5, thread: 'alternate' },
    text: `{title: Waltz for the Night Steward}
{tags: second set, quiet}
{key: Ab}
{time: 3/4}
{tempo: 138}
{meta: feel waltz}
{start_of_grid label="A"}
|: Abmaj7 | Fm7 | Bbm7 | Eb7 |
|  Cm7    | F7b9 | Bbm7 | Eb7 |
|  Dbmaj7 | Gb7#11 |1 Abmaj7 | Eb7sus4 :|2 Ab6 | % |.
{end_of_grid}
`
  },
  {
    plan: { approach: 'key-centre' },
    text: `{title: Fog Signal}
{key: D mixolydian}
{time: 4/4}
{tempo: 104}
{meta: feel straight}
{melody: D5:2 C5 A4 | G4:1.5 A4:0.5 C5:2 | D5:3 r | r A4 C5 A4 | D5:2 F#5 E5 | C5:1.5 D5:0.5 E5:2 | G4 A4 C5 G4 | A4:4}
{start_of_grid label="A"}
| D | C | G | D |
| D | C | G | D |.
{end_of_grid}
`
  },
  {
    plan: { approach: 'blues' },
    text: `{title: Loading Ramp}
{key: E}
{time: 4/4}
{tempo: 126}
{meta: feel straight}
{start_of_grid label="Riff"}
| E | G | D | A |
| E | G | A | E |.
{end_of_grid}
`
  },
  {
    plan: { approach: 'blues' },
    text: `{title: Third Engineer's Lament}
{tags: second set, quiet}
{key: Cm}
{time: 4/4}
{tempo: 92}
{meta: feel shuffle}
{start_of_grid label="Chorus"}
| Cm7 | Fm7 | Cm7 | C7 |
| Fm7 | %   | Cm7 | %  |
| Ab7 | G7  | Cm7 | G7 |.
{end_of_grid}
`
  }
];
