/**
 * The demo lick book: idioms of the Saltmarsh Four in every style of their songbook. Chords with their beats; notes as `demo-lick-text.ts`
 * reads them. Those of a blues or a rock riff are kept by their key, the others by their chords.
 */
export interface DemoLick {
  readonly name: string;
  /** "Dm7:4 G7:4". */
  readonly over: string;
  /** Found from the chords where it is left out. */
  readonly key?: string;
  /** By its chords where nothing is said. */
  readonly by?: 'key';
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
    name: 'Anchor up',
    over: 'A7:8',
    key: 'A',
    by: 'key',
    notes: '| 1.5:E4^2(1) 2.5:E4 3:G4 3.5:A4 4:G4 4.5:E4 | 1:D4 1.5:C4c 2:A3~(2)',
    position: 5,
    tags: ['blues', 'shuffle']
  },
  {
    name: 'Wet rope',
    over: 'Am7:4',
    key: 'A minor',
    by: 'key',
    notes: '| 1:C5 1.5:A4_ 2:G4 2.5:E4 3:A4^2~(2)',
    position: 5,
    tags: ['rock', 'pentatonic']
  },
  {
    name: 'Down the ladder',
    over: 'A7:8',
    key: 'A',
    by: 'key',
    notes:
      '4.33:G4 4.67:A4 | 1:C5 1.33:A4_ 1.67:G4 2:C5 2.33:A4_ 2.67:G4 3:E4 3.33:G4 3.67:E4_ 4:D4(1) | 1:C4c 1.67:A3~(2)',
    position: 5,
    tags: ['blues', 'shuffle', 'triplets']
  },
  {
    name: 'Chain locker',
    over: 'A7:8',
    key: 'A',
    by: 'key',
    notes: '| 1:E4^2 1.5:E4 2:A4 2.5:E4^2(1) 3.5:A4 4:G4 4.5:E4 | 1:A4~(2)',
    position: 5,
    tags: ['blues', 'shuffle', 'bends']
  },
  {
    name: 'Bilge',
    over: 'E7:4',
    key: 'E minor',
    by: 'key',
    notes: '| 1:E3 1.5:G3 2:A3 2.5:Bb3 3:A3_ 3.5:G3 4:E3(1)',
    position: 2,
    tags: ['rock', 'riff']
  },
  {
    name: 'Anchor chain',
    over: 'Cm7:8',
    key: 'C minor',
    by: 'key',
    notes:
      '4:G4 4.5:Bb4 | 1:C5(1) 2.33:Bb4 2.67:G4_ 3:F4 3.33:Gb4 3.67:F4_ 4:Eb4 4.5:C4(1) | 1.5:Bb3 2:C4~(2)',
    position: 8,
    tags: ['minor blues', 'blues']
  },
  {
    name: 'Cold hands',
    over: 'Gm7:8',
    key: 'G minor',
    by: 'key',
    notes:
      '4.33:Bb4 4.67:C5 | 1:D5^2~(1.5) 2.67:C5 3:Bb4 3.33:G4_ 3.67:F4 4:G4~(1) | 2.33:F4 2.67:D4 3:F4 3.33:G4~(1.5)',
    position: 8,
    tags: ['minor blues', 'slow']
  },
  {
    name: 'Storm door',
    over: 'Em:8',
    key: 'E minor',
    by: 'key',
    notes: '4.5:A4 | 1:B4^2 1.5:D5 2:E5 2.5:D5 3:B4_ 3.5:A4 4:G4_ 4.5:A4 | 1:E4~(3)',
    position: 12,
    tags: ['rock', 'bends']
  },
  {
    name: 'Engine rhythm',
    over: 'Fm7:4',
    key: 'F minor',
    by: 'key',
    notes:
      '4.75:Eb4(0.25) | 1:F4(0.25) 1.25:x(0.25) 1.75:Ab4(0.5) 2.5:Bb4(0.5) 3.25:C5(0.25) 3.5:x(0.25) 3.75:Bb4(0.25) 4:Ab4 4.5:F4(0.5)',
    position: 8,
    tags: ['funk', 'soul', 'vamp']
  },
  {
    name: 'Power cut',
    over: 'A5:4',
    key: 'A minor',
    by: 'key',
    notes: '| 1:A3 1.5:x(0.25) 1.75:C4(0.25) 2:D4 2.5:C4_ 3:A3 3.5:G3 4:A3~(1)',
    position: 5,
    tags: ['rock', 'riff']
  },
  {
    name: 'Nobody on watch',
    over: 'Bm7:8',
    key: 'B minor',
    by: 'key',
    notes: '4.67:A4 | 1:B4 1.67:D5/(1) 2.67:B4 3:A4 3.33:F#4_ 3.67:E4 4:F#4(1) | 1.67:E4 2:D4_ 2.67:B3~(1.5)',
    position: 7,
    tags: ['minor blues', 'slow', 'shuffle']
  },
  {
    name: 'Gangway',
    over: 'Dm7:4 G7:4 Cmaj7:4',
    notes:
      '4.5:E4 | 1:F4 1.5:A4 2:C5 2.33:D5 2.67:C5_ 3:A4 3.5:G4 4:F4 4.5:A4 | 1:B4 1.5:D5 2:Ab4 2.5:G4 3:F4 3.5:D4 4:F4 4.5:D#4 | 1:E4 1.5:G4 2.5:B4~(1.5)',
    position: 7,
    tags: ['swing', 'ii–V–I']
  },
  {
    name: 'Down the companionway',
    over: 'Dm7:4 G7b9:4 Cmaj7:4',
    notes:
      '4.5:C5(1) | 1.5:A4 2:F4 2.5:E4 3:D4 3.33:F4 3.67:A4 4:C5 4.5:B4_(1) | 1.5:Ab4 2:F4 2.5:D4 3:B3 3.5:D4 4:Ab4 4.5:G4(1) | 2:E4 2.5:D4 3:B3~(2)',
    position: 7,
    tags: ['swing', 'ii–V–I', 'pushed']
  },
  {
    name: 'Porthole latch',
    over: 'Am7b5:4 D7b9:4 Gm6:4',
    notes:
      '4.5:B4 | 1:C5 1.5:A4 2:G4 2.5:Eb4 3:F4 3.5:Eb4 4:C4 4.5:D4 | 1:F#4 1.5:A4 2:C5 2.33:Eb5 2.67:C5 3:Bb4 3.5:A4_ 4:Eb4 4.5:F#4 | 1:G4(1) 2.5:Bb4 3:D5 3.5:E5~(1.5)',
    position: 10,
    tags: ['swing', 'minor ii–V–i']
  },
  {
    name: 'Bulkhead',
    over: 'Dm7b5:4 G7alt:4 Cm6:4',
    notes:
      '| 1.5:F4 2:Ab4 2.5:C5 3:B4 3.5:C5 4:Ab4 4.5:F4 | 1:Eb4 1.5:F4 2:Ab4 2.5:B4 3:Db5 3.5:B4_ 4:Bb4 4.5:Ab4_ | 1:G4 1.5:Eb4 2:A4(1) 3.5:G4~(1.5)',
    position: 7,
    tags: ['swing', 'minor ii–V–i', 'altered']
  },
  {
    name: 'Harbour light',
    over: 'Gm7:4 C7b9:4 Fmaj7:4',
    notes:
      '4:F4 4.5:A4 | 1:Bb4_ 1.5:D5 2.5:F5(1) 3.5:E5 4:D5_ 4.5:Db5_(1) | 1.5:Bb4 2:G4 2.33:E4 2.67:Db4 3:C4 3.5:E4 4:G4 4.5:A4(1.5) | 2.5:C5 3:E5~(2)',
    position: 9,
    tags: ['swing', 'ii–V–I', 'pushed']
  },
  {
    name: 'Round the buoy',
    over: 'Fmaj7:2 Dm7:2 Gm7:2 C7:2 Fmaj7:4',
    notes:
      '4.5:G#4 | 1:A4 1.5:C5 2:E5 2.5:C5 3:D5 3.33:F5 3.67:D5 4:C5 4.5:A4 | 1:Bb4 1.5:G4 2:F4 2.5:D4 3:E4 3.5:G4 4:Bb4 4.5:G#4 | 1:A4~(2)',
    position: 10,
    tags: ['swing', 'turnaround']
  },
  {
    name: 'Two dominants',
    over: 'D7:4 G7:4',
    notes:
      '4:A4 4.5:F4 | 1:F#4 1.5:A4 2:C5 2.5:B4 3:C5_ 3.5:A4 4:F#4 4.5:D4 | 1:F4(1) 2:Ab4 2.33:A4_ 2.67:B4 3:D5 3.5:B4 4:G4(1)',
    position: 7,
    tags: ['swing', 'cycle']
  },
  {
    name: 'Other side of the channel',
    over: 'Dm7:4 Db7:4 Cmaj7:4',
    notes:
      '4.5:E5 | 1:F5_ 1.5:D5 2:C5 2.5:A4 3:F4 3.5:E4 4:F4_ 4.5:Ab4(1) | 1.5:F4 2:Eb4 2.5:Db4 3:B3 3.5:Db4 4:F4 4.5:E4(1.5) | 2:G4_ 2.5:B4~(2)',
    position: 9,
    tags: ['swing', 'tritone', 'pushed']
  },
  {
    name: 'Between two steps',
    over: 'Cmaj7:2 C#dim7:2 Dm7:4',
    notes: '4.5:D4 | 1:E4 1.5:G4 2:B4 2.5:A4_ 3:G4 3.5:Bb4 4:C#5 4.5:E5(1) | 1.5:F5 2:D5 2.5:A4 3:F4~(1.5)',
    position: 9,
    tags: ['swing', 'passing chord']
  },
  {
    name: 'Night watch',
    over: 'Cm6:8',
    notes:
      '4:G4 4.5:B4 | 1:C5_ 1.5:Eb5 2:D5 2.33:Eb5_ 2.67:D5_ 3:C5 3.5:A4 4:G4 4.5:Eb4(1) | 1.5:D4 2:Eb4~_(2)',
    position: 10,
    tags: ['swing', 'minor']
  },
  {
    name: 'First to fourth',
    over: 'Eb7:4 Ab7:4',
    notes:
      '4.5:F4 | 1:Gb4 1.33:G4_ 1.67:Bb4 2:Db5(1) 3:C5 3.5:Bb4 4:G4 4.5:Gb4_(1.5) | 2:Eb4 2.5:F4 3:Gb4_ 3.5:Eb4 4:C4~(1)',
    position: 6,
    tags: ['blues', 'swing', 'I–IV']
  },
  {
    name: 'Last four bars',
    over: 'Bb7:4 Ab7:4 Eb7:8',
    notes:
      '4.5:C#5 | 1:D5_ 1.5:Bb4 2:Ab4 2.5:F4 3:D4(1) 4.5:Gb4(1) | 1.5:Ab4 2:C5 2.5:Bb4 3:Ab4_ 3.5:Gb4 4:Eb4 4.5:F#4_ | 1:G4(1) 2:Bb4 2.5:C5 3:Eb5~(2)',
    position: 8,
    tags: ['blues', 'V–IV–I']
  },
  {
    name: 'Priming the pump',
    over: 'Eb7:4',
    notes: '4.5:F#4 | 1:G4 1.33:Bb4 1.67:C5 2:Eb5(1) 3:Db5c 3.5:Bb4 4:G4 4.5:Eb4',
    position: 8,
    tags: ['blues', 'shuffle', 'flat third to third']
  },
  {
    name: 'Four in the morning',
    over: 'Fm7:8',
    notes: '4.5:G4 | 1:Ab4_ 1.5:C5(1) 2.5:Eb5(1) 3.5:D5 4:C5 4.5:Ab4 | 1:G4 1.5:D4 2:F4 2.5:C4 3:Eb4~(2)',
    position: 8,
    tags: ['modal', 'dorian', 'fourths']
  },
  {
    name: 'Fourths on deck',
    over: 'Dm7:8',
    notes: '| 1:D4 1.5:G4 2:C5(1) 3:E5 3.5:B4 4:D5 4.5:A4(1) | 2:C5 2.5:G4 3:F4~(2)',
    position: 10,
    tags: ['modal', 'dorian', 'fourths']
  },
  {
    name: 'Triads in the rigging',
    over: 'Gm7:8',
    notes:
      '| 1:Bb4 1.33:D5 1.67:F5 2:E5 2.33:C5 2.67:G4 3:F4 3.33:Bb4 3.67:D5 4:C5 4.33:G4 4.67:E4 | 1:D4(1) 2.5:F4 3:G4~(2)',
    position: 10,
    tags: ['modal', 'dorian', 'triad pair']
  },
  {
    name: 'Green light',
    over: 'Ebmaj7#11:8',
    notes: '4.5:F4 | 1:G4 1.5:Bb4 2:D5 2.5:A4(1.5) 4:G4 4.5:D4 | 1:F4(1) 2:C5~(2.5)',
    position: 7,
    tags: ['modal', 'lydian']
  },
  {
    name: 'Foghorn to foghorn',
    over: 'Emaj7:4 Gmaj7:4',
    notes: '| 1:G#4 1.5:B4 2.5:D#5(1) 3.5:C#5 4:B4 4.5:F#4(1.5) | 2:G4 2.5:B4 3:D5 3.5:F#5~(1.5)',
    position: 11,
    tags: ['modal', 'thirds apart']
  },
  {
    name: 'Held at the pier',
    over: 'F7sus4:4',
    notes: '4.5:Eb4 | 1:F4_ 1.5:Bb4 2:Eb5(1) 3:C5 3.5:Bb4 4:F4~(1)',
    position: 8,
    tags: ['modal', 'suspended']
  },
  {
    name: 'Harbour café',
    over: 'Dm7:4 G7:4',
    notes: '4.5:E4 | 1:F4_ 1.5:A4(1) 2.5:C5(1) 3.5:E5 4:D5 4.5:B4(1.5) | 2:A4_ 2.5:G4(1) 3.5:F4 4:E4~_(1)',
    position: 9,
    tags: ['bossa', 'ii–V']
  },
  {
    name: 'Tide table',
    over: 'Cmaj7:4 Ebdim7:4 Dm7:8',
    notes:
      '| 1.5:E4 2:G4 2.5:B4(1) 3.5:A4 4:G4_ 4.5:F#4(1) | 1.5:A4 2:C5 2.5:Eb5(1) 3.5:C5 4:A4 4.5:F4(1.5) | 2:E4 2.5:D4~_(2)',
    position: 7,
    tags: ['bossa', 'passing chord', 'pushed']
  },
  {
    name: 'Open shutters',
    over: 'Gmaj7:4 C#m7b5:2 F#7b9:2 Bm7:4',
    notes:
      '4:D4 4.5:F#4 | 1:B4(1) 2.5:A4 3:F#4 3.5:D4 4:E4 4.5:G4(1) | 1.5:E4 2:C#4 2.5:G4 3:A#4 3.5:C#5 4:E5_ 4.5:D5(1.5) | 2:B4 2.5:F#4~(2)',
    position: 9,
    tags: ['bossa', 'minor ii–V–i', 'pushed']
  },
  {
    name: 'Rope dance',
    over: 'E7:4 Am:4',
    notes: '4.5:D#4 | 1:E4 1.5:F4 2:G#4 2.5:B4 3:D5 3.33:E5 3.67:D5_ 4:C5 4.5:B4 | 1:A4(1) 2.5:C5 3:E5~(2)',
    position: 10,
    tags: ['latin', 'V–i']
  },
  {
    name: 'Deck lamp',
    over: 'Bbmaj7:4 Ebmaj7:4',
    notes:
      '4.5:F4 4.75:A4(0.25) | 1:D5~(1.5) 2.5:C5(0.25) 2.75:Bb4(0.25) 3:A4_ 3.5:F4 4:G4(1) | 1:Bb4(1) 2.5:D5 3:G5~(2)',
    position: 12,
    tags: ['ballad', 'soul']
  },
  {
    name: 'Last lamp out',
    over: 'Abmaj7:4 Gm7b5:2 C7b9:2 Fm7:4',
    notes:
      '| 1:C5~(1.5) 2.5:Bb4 2.67:C5 2.83:Bb4 3:Ab4 3.5:G4_ 4:Eb4 4.5:F4 | 1:Bb4 1.5:Db5 2:F5 2.5:Eb5 3:Db5_ 3.5:Bb4 4:G4 4.5:E4 | 1:F4~_(2)',
    position: 12,
    tags: ['ballad', 'minor ii–V–i']
  },
  {
    name: 'Steward’s tray',
    over: 'Bbmaj7:3 Gm7:3 Cm7:3',
    meter: '3/4',
    notes:
      '3:F4 3.5:A4 | 1:D5(1) 2:C5_ 2.5:A4 3:Bb4 3.5:G4 | 1:F4 1.5:D4 2:Eb4 2.5:F#4_ 3:G4 3.5:Bb4 | 1:Eb5~(2)',
    position: 8,
    tags: ['waltz', 'I–vi–ii']
  },
  {
    name: 'Steward’s keys',
    over: 'Cm7:3 F7:3 Bbmaj7:3',
    meter: '3/4',
    notes:
      '| 1.5:Eb4 2:G4 2.5:Bb4 3:A4 3.5:Bb4_ | 1:C5 1.33:D5 1.67:C5_ 2:A4 2.5:F4 3:Eb4 3.5:C#4 | 1:D4(1) 2.5:F4 3:A4~(1)',
    position: 8,
    tags: ['waltz', 'ii–V–I']
  },
  {
    name: 'Two against three',
    over: 'Gbmaj7:3 Ebm7:3',
    meter: '3/4',
    notes: '| 1:Bb4(1.5) 2.5:F4(1.5) | 1:Gb4(1.5) 2.5:Db4~(1.5)',
    position: 6,
    tags: ['waltz', 'across the bar']
  },
  {
    name: 'Cattle pier',
    over: 'G:4',
    notes:
      '4:D4 4.5:E4 | 1:G4(0.25) 1.25:A4(0.25) 1.5:Bb4_(0.25) 1.75:B4_(0.25) 2:D5(1) 3:E5(0.25) 3.25:D5_(0.25) 3.5:B4 4:G4~(1)',
    position: 9,
    tags: ['country', 'flat third to third']
  },
  {
    name: 'Double rope',
    over: 'A:4 D:4',
    notes:
      '| 1:A4+C#5 1.5:B4+D5 2:C#5+E5(1) 3.5:C#5+E5 4:B4+D5 4.5:A4+C5 | 1:F#4+A4(1) 2:G4+B4 2.5:G#4+C5 3:A4+D5~(2)',
    position: 10,
    tags: ['country', 'double stops']
  },
  {
    name: 'Behind the nut',
    over: 'E:4',
    notes:
      '4.5:F#3 | 1:G3(0.25) 1.25:G#3_(0.25) 1.5:B3 2:E4 2.5:D4(0.25) 2.75:C#4(0.25) 3:B3 3.5:G#3 4:E3~(1)',
    position: 1,
    tags: ['country', 'open strings']
  },
  {
    name: 'Sixths ashore',
    over: 'C:4 F:4',
    notes:
      '| 1:E4+C5 2:F4+D5 2.5:F#4+Eb5 3:G4+E5(1) 4.5:G4+E5(0.5) | 1:A4+F5(1) 2:G4+E5 2.5:F4+D5 3:A4+F5~(2)',
    position: 10,
    tags: ['country', 'double stops', 'sixths']
  },
  {
    name: 'Ferry lights',
    over: 'C:6 Em7:6',
    meter: '6/8',
    notes: '6:G4 6.5:A4_ | 1:C5(2) 3:E5(1) 4:D5~(2) 6:C5(1) | 1:B4(2) 3:G4(1) 4:E4~(3)',
    position: 8,
    tags: ['soul', 'six']
  },
  {
    name: 'Side door',
    over: 'E7#9:4',
    notes:
      '4.5:D4(0.25) 4.75:E4(0.25) | 1.25:G4(0.25) 1.5:G#4_(0.25) 2:B4 2.75:D5(0.25) 3.25:B4(0.25) 3.5:G4c 4:E4',
    position: 7,
    tags: ['funk', 'flat third to third']
  },
  {
    name: 'Warm deck',
    over: 'Am7:4 D7:4',
    key: 'G',
    notes:
      '4.5:B4 | 1:C5_(1) 2:E5 2.5:D5_ 3:C5 3.5:A4 4:G4 4.5:F#4(1.5) | 2:A4 2.5:C5 3:B4 3.5:A4_ 4:F#4~(1)',
    position: 10,
    tags: ['soul', 'ii–V']
  },
  {
    name: 'Three ropes',
    over: 'G:4 F:4 C:8',
    notes:
      '| 1:B4 1.5:D5 2:G5(1) 3.5:D5 4:C5 4.5:A4(1) | 1.5:C5 2:F5(1) 3:C5 3.5:A4 4:F4 4.5:E4(1.5) | 2:G4 2.5:C5 3:E5~(2)',
    position: 12,
    tags: ['rock', 'triads', 'pushed']
  },
  {
    name: 'Diesel',
    over: 'E7:4 A7:4',
    notes: '4.5:F#4 | 1:G4_ 1.5:G#4 2:B4_ 2.5:D5 3:E5(1) 4:D5 4.5:C#5_(1) | 1.5:A4 2:G4 2.5:E4 3:C#4~(2)',
    position: 9,
    tags: ['rock', 'blues', 'cycle']
  },
  {
    name: 'Back below',
    over: 'B7b9:4 Em7:4',
    notes: '| 1:D#4 1.5:F#4 2:A4 2.5:C5 3:B4_ 3.5:A4 4:G4 4.5:F#4_ | 1:E4(1) 2:G4 2.5:A4 3:B4^2~(2)',
    position: 7,
    tags: ['rock', 'V–i', 'bends']
  },
  {
    name: 'Long bend home',
    over: 'G:4 D:4',
    notes: '| 1.5:B4 2:D5 2.5:E5^2(1) 3.5:D5 4:B4 4.5:A4 | 1:F#4_(1) 2:A4 2.5:B4 3:A4~(2)',
    position: 7,
    tags: ['rock', 'bends']
  }
];
