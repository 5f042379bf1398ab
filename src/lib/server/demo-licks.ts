/**
 * The demo lick book: phrases of the Saltmarsh Four in every style of their songbook. Chords with their beats; notes as a melody is typed,
 * an eighth unless a length is said. Those that do not tell their chords by themselves are tagged so.
 */
export interface DemoLick {
  readonly name: string;
  /** "Dm7:4 G7:4". */
  readonly over: string;
  /** Found from the chords where it is left out. */
  readonly key?: string;
  /** "4/4" unless said. */
  readonly meter?: string;
  readonly notes: string;
  /** The hand's position. */
  readonly position: number;
  readonly tags: readonly string[];
}

/** The tag of a lick that colours its chords rather than telling them. */
export const NOT_TOLD = 'not told alone';

export const DEMO_LICKS: readonly DemoLick[] = [
  {
    name: 'Gangway',
    over: 'Dm7:4 G7:4 Cmaj7:4',
    notes: 'D4 F4 A4 C5 B4 A4 F4 E4 | D4 F4 G4 B4 D5 C5 B4 F4 | E4:1 G4 B4 C5:2',
    position: 5,
    tags: ['swing', 'ii–V–I']
  },
  {
    name: 'Down the companionway',
    over: 'Dm7:4 G7b9:4 Cmaj7:4',
    notes: 'F4 A4 C5 E5 D5 C5 A4 F4 | B4 D5 F5 Ab5 G5 F5 D5 B4 | C5 G4 E4 B4:5/2',
    position: 5,
    tags: ['swing', 'ii–V–I', 'wide']
  },
  {
    name: 'Porthole latch',
    over: 'Am7b5:4 D7b9:4 Gm6:4',
    notes: 'A4 C5 Eb5 G5 Eb5 C5 A4 G4 | F#4 A4 C5 Eb5 D5 C5 A4 F#4 | G4 Bb4 D5 E5:5/2',
    position: 5,
    tags: ['swing', 'minor ii–V–i']
  },
  {
    name: 'Bulkhead',
    over: 'Dm7b5:4 G7alt:4 Cm6:4',
    notes: 'F4 Ab4 C5 D5 C5 Ab4 F4 D4 | B3 Eb4 F4 Ab4 B4 Ab4 F4 Eb4 | Eb4:1 G4 A4 C5:2',
    position: 8,
    tags: ['swing', 'minor ii–V–i', 'altered']
  },
  {
    name: 'Priming the pump',
    over: 'Eb7:4',
    notes: 'Gb4 G4 Bb4 C5 Db5 Bb4 G4 Eb4',
    position: 6,
    tags: ['blues', 'flat third to third']
  },
  {
    name: 'First to fourth',
    over: 'Eb7:4 Ab7:4',
    notes: 'G4 Bb4 C5 Db5 Bb4 G4 Eb4 G4 | Gb4 Ab4 C5 Eb5 C5 Ab4 Gb4 Eb4',
    position: 6,
    tags: ['blues', 'I–IV']
  },
  {
    name: 'Last four bars',
    over: 'Bb7:4 Ab7:4 Eb7:4',
    notes: 'D4 F4 Ab4 Bb4 Ab4 F4 D4 Bb3 | C4 Eb4 Gb4 Ab4 Bb4 Ab4 Gb4 Eb4 | G4 Bb4 Db5 Eb5:5/2',
    position: 6,
    tags: ['blues', 'V–IV–I']
  },
  {
    name: 'Four in the morning',
    over: 'Fm7:8',
    notes: 'F4 Ab4 C5 D5 C5 Ab4 F4 Eb4 | C4 Eb4 F4 Ab4 F4:2',
    position: 8,
    tags: ['modal', 'dorian', 'vamp']
  },
  {
    name: 'Wet rope',
    over: 'Am7:4',
    notes: 'A4 C5 A4 G4 E4 G4 A4:1',
    position: 5,
    tags: ['rock', 'pentatonic']
  },
  {
    name: 'Steward’s tray',
    over: 'Bbmaj7:3 Gm7:3',
    meter: '3/4',
    notes: 'D5 F5 D5 Bb4 A4 F4 | Bb4 D5 F5 D5 Bb4 G4',
    position: 6,
    tags: ['waltz', 'I–vi']
  },
  {
    name: 'Steward’s keys',
    over: 'Cm7:3 F7:3 Bbmaj7:3',
    meter: '3/4',
    notes: 'Eb4 G4 Bb4 C5 Bb4 G4 | A4 C5 Eb5 C5 A4 F4 | D4:1 F4 A4 Bb4:1',
    position: 6,
    tags: ['waltz', 'ii–V–I']
  },
  {
    name: 'Round the buoy',
    over: 'Fmaj7:2 Dm7:2 Gm7:2 C7:2',
    notes: 'A4 C5 E5 C5 F4 A4 D5 C5 | Bb4 D5 G4 F4 E4 G4 Bb4 C5',
    position: 5,
    tags: ['swing', 'turnaround']
  },
  {
    name: 'Two dominants',
    over: 'D7:4 G7:4',
    notes: 'F#4 A4 C5 D5 C5 A4 F#4 D4 | F4 G4 B4 D5 B4 G4 F4 D4',
    position: 5,
    tags: ['swing', 'cycle']
  },
  {
    name: 'Diesel',
    over: 'E7:4 A7:4',
    notes: 'G#4 B4 D5 E5 D5 B4 G#4 E4 | G4 A4 C#5 E5 C#5 A4 G4 E4',
    position: 7,
    tags: ['rock', 'blues', 'cycle']
  },
  {
    name: 'Green light',
    over: 'Ebmaj7#11:4',
    notes: 'G4 Bb4 D5 A4 G4 D4 Bb3 Eb4',
    position: 5,
    tags: ['modal', 'lydian']
  },
  {
    name: 'Foghorn to foghorn',
    over: 'Emaj7:4 Gmaj7:4',
    notes: 'G#4 B4 D#5 B4 G#4 E4 D#4 E4 | F#4 G4 B4 D5 B4 G4 F#4 D4',
    position: 4,
    tags: ['modal', 'thirds apart']
  },
  {
    name: 'Between two steps',
    over: 'Cmaj7:2 C#dim7:2 Dm7:4',
    notes: 'E4 G4 B4 C5 C#5 Bb4 G4 E4 | F4 A4 C5 D5:5/2',
    position: 5,
    tags: ['swing', 'passing chord']
  },
  {
    name: 'Other side of the channel',
    over: 'Dm7:4 Db7:4 Cmaj7:4',
    notes: 'F4 A4 C5 D5 C5 A4 F4 D4 | F4 Ab4 B4 Db5 B4 Ab4 F4 Db4 | C4 E4 G4 B4:5/2',
    position: 3,
    tags: ['swing', 'tritone']
  },
  {
    name: 'Slow to quarter',
    key: 'G',
    over: 'Am7:4 D7:4',
    notes: 'C5 E5 G5 E5 C5 A4 G4 E4 | F#4 A4 C5 D5 C5 A4 F#4 D4',
    position: 5,
    tags: ['soul', 'ii–V']
  },
  {
    name: 'Deck lamp',
    over: 'Bbmaj7:4 Ebmaj7:4',
    notes: 'D5 F5 G5 F5 D5 C5 Bb4 G4 | F4 G4 Bb4 C5 D5:2',
    position: 6,
    tags: ['soul', 'pentatonic', NOT_TOLD]
  },
  {
    name: 'Held at the pier',
    over: 'F7sus4:4',
    notes: 'Bb4 Eb5 F5 Eb5 Bb4 F4 C5 Bb4',
    position: 6,
    tags: ['modal', 'suspended']
  },
  {
    name: 'Three ropes',
    over: 'G:4 F:4 C:4',
    notes: 'B4 D5 G5 D5 B4 G4 D4 B3 | C5 A4 F4 C4 F4 A4 C5 F5 | E5 C5 G4 E4 C4:2',
    position: 5,
    tags: ['rock', 'triads']
  },
  {
    name: 'Harbour light',
    over: 'Gm7:4 C7b9:4 Fmaj7:4',
    notes: 'Bb4 D5 F5 D5 Bb4 G4 F4 D4 | E4 G4 Bb4 Db5 C5 Bb4 G4 E4 | F4 A4 C5 E5:5/2',
    position: 5,
    tags: ['swing', 'ii–V–I']
  },
  {
    name: 'Cold hands',
    over: 'Cm7:4 Fm7:4',
    notes: 'Eb5 C5 Bb4 G4 Eb4 C4 Eb4 G4 | Ab4 C5 Eb5 F5 Eb5 C5 Ab4 F4',
    position: 8,
    tags: ['minor blues', 'i–iv']
  },
  {
    name: 'Back below',
    over: 'B7b9:4 Em7:4',
    notes: 'D#4 F#4 A4 C5 B4 A4 F#4 D#4 | E4 G4 B4 D5:5/2',
    position: 4,
    tags: ['rock', 'V–i']
  },
  {
    name: 'Engine rhythm',
    over: 'Fm7:4',
    notes: 'C5 Eb5 F5 Eb5 C5 Bb4 C5:1',
    position: 8,
    tags: ['soul', 'vamp', 'pentatonic', NOT_TOLD]
  }
];
