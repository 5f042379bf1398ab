/** What the player has set on the desk of the stand; kept in the browser, for it belongs to the room and the ears. */
import type { ChordSound } from '$lib/core/practice/feel';
import type { Part } from '$lib/core/practice/events';
import { PLAIN_INTENSITY } from '$lib/core/practice/intensity';
import type { KeyOrder, Ladder } from '$lib/core/practice/ladder';
import type { EarInput } from '../input/ear.svelte';

export interface DeskSettings {
  readonly feel: string | null;
  /** What the chords are played on; as the feel has it where nothing is chosen. */
  readonly chordSound: ChordSound | 'feel';
  /** How much the band gives, 0 to 1, and how that goes from round to round. */
  readonly intensity: number;
  readonly arc: string;
  /** Whether the band follows a player whom it hears. */
  readonly follows: boolean;
  /** Whether files end on the I. */
  readonly ends: boolean;
  readonly drill: string | null;
  readonly perBeat: 2 | 3 | 4;
  readonly countsIn: boolean;
  readonly halfTime: boolean;
  readonly keys: KeyOrder;
  readonly ladder: (Ladder & { readonly isOn: boolean }) | null;
  /** What the stand hides, to test memory. */
  readonly hides: 'nothing' | 'all but roots' | 'everything';
  /** What is listened to, where the stand listens. */
  readonly hears: EarInput;
  readonly mix: Readonly<Record<Part, { readonly decibels: number; readonly isMuted: boolean }>>;
}

const AT_FIRST: DeskSettings = {
  feel: null,
  chordSound: 'feel',
  intensity: PLAIN_INTENSITY,
  arc: 'steady',
  follows: true,
  ends: true,
  drill: null,
  perBeat: 2,
  countsIn: true,
  halfTime: false,
  keys: 'stay',
  ladder: null,
  hides: 'nothing',
  hears: 'microphone',
  mix: {
    bass: { decibels: 0, isMuted: false },
    chords: { decibels: 0, isMuted: false },
    drums: { decibels: 0, isMuted: false },
    click: { decibels: -6, isMuted: true },
    line: { decibels: 0, isMuted: false },
    backing: { decibels: 0, isMuted: false }
  }
};

const PLACE = 'corvel-desk';

function stored(): DeskSettings {
  if (typeof localStorage === 'undefined') return AT_FIRST;
  try {
    const stored = JSON.parse(localStorage.getItem(PLACE) ?? '{}') as Partial<DeskSettings>;
    return { ...AT_FIRST, ...stored, mix: { ...AT_FIRST.mix, ...stored.mix } };
  } catch {
    return AT_FIRST;
  }
}

/** Settings that make other music. */
const OTHER_MUSIC: readonly (keyof DeskSettings)[] = [
  'feel',
  'chordSound',
  'drill',
  'perBeat',
  'keys',
  'ladder'
];

/** Whether the band begins again with what was set. */
export const startsAnew = (part: Partial<DeskSettings>): boolean =>
  OTHER_MUSIC.some((setting) => setting in part);

export class Desk {
  now: DeskSettings = $state.raw(stored());
  /** What the player had set before the stand was opened for something. */
  #own: DeskSettings | null = null;
  readonly #onset: (part: Partial<DeskSettings>) => void;

  /** `onset`: what was just set is to be heard. */
  constructor(onset: (part: Partial<DeskSettings>) => void) {
    this.#onset = onset;
  }

  /** The ladder, where it moves the tempo. */
  get ladder(): Ladder | null {
    return this.now.ladder?.isOn ? this.now.ladder : null;
  }

  set(part: Partial<DeskSettings>): void {
    this.now = { ...this.now, ...part };
    try {
      // What the stand was opened for is not the player's own: it is gone with the page.
      const { drill, keys, halfTime, ladder } = this.#own ?? this.now;
      localStorage.setItem(PLACE, JSON.stringify({ ...this.now, drill, keys, halfTime, ladder }));
    } catch {
      // A browser that keeps nothing still plays.
    }
    this.#onset(part);
  }

  setMix(part: Part, change: Partial<DeskSettings['mix'][Part]>): void {
    this.set({ mix: { ...this.now.mix, [part]: { ...this.now.mix[part], ...change } } });
  }

  /** Sets what the stand was opened for: a drill in one key, at full speed, without the desk's ladder. */
  lend(drill: string | null): void {
    this.#own ??= this.now;
    const { ladder } = this.now;
    this.set({ drill, keys: 'stay', halfTime: false, ladder: ladder && { ...ladder, isOn: false } });
  }

  /** Sets what the player had before; what has been turned since, of the mix or the feel, stays. */
  takeBack(): void {
    const own = this.#own;
    this.#own = null;
    if (!own) return;
    const { drill, keys, halfTime, ladder } = own;
    this.set({ drill, keys, halfTime, ladder });
  }
}
