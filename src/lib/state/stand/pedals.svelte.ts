/**
 * Pedals under the foot, for hands that are on the guitar: which key or MIDI message does what in a rehearsal. They are learnt
 * by pressing them, and kept in the browser, for they belong to the room.
 */

/** What a pedal can do, in the order in which it is offered. */
export const PEDAL_ACTIONS = [
  { id: 'play', name: 'play or stop' },
  { id: 'next', name: 'next section' },
  { id: 'loop', name: 'loop this section, or the whole form' },
  { id: 'faster', name: 'tempo up' },
  { id: 'slower', name: 'tempo down' },
  { id: 'more', name: 'more from the band' },
  { id: 'less', name: 'less from the band' },
  { id: 'clean', name: 'the last round was clean' },
  { id: 'stumble', name: 'missed' },
  { id: 'lost', name: 'lost: form and melody' }
] as const;
export type PedalAction = (typeof PEDAL_ACTIONS)[number]['id'];

/** "key PageDown", "midi 176 64": a key by its place on the keyboard, or a message by its kind and first number. */
export type Pedal = string;

export type PedalBoard = Readonly<Partial<Record<PedalAction, Pedal>>>;

/** Page turners send these. */
const AT_FIRST: PedalBoard = { play: 'key PageUp', next: 'key PageDown' };
const PLACE = 'corvel-pedals';
/** Keys that are not to be taken away: they leave and move the focus. */
const KEPT_KEYS = new Set(['Escape', 'Tab']);

/** The pedal that a key is; null for keys that only go with others, and those that stay what they are. */
export function pedalOfKey({
  code,
  key,
  ctrlKey,
  metaKey,
  altKey
}: Pick<KeyboardEvent, 'code' | 'key' | 'ctrlKey' | 'metaKey' | 'altKey'>): Pedal | null {
  const isModifier = ['Shift', 'Control', 'Alt', 'Meta'].includes(key);
  if (isModifier || ctrlKey || metaKey || altKey || KEPT_KEYS.has(key) || !code) return null;
  return `key ${code}`;
}

const [NOTE_ON, CONTROL, PROGRAM] = [0x90, 0xb0, 0xc0];
/** A switch is down from the middle of its range on. */
const DOWN = 64;

/** The pedal that a MIDI message is the press of; null for releases and for everything else. */
export function pedalOfMidi(data: ArrayLike<number>): Pedal | null {
  const kind = (data[0] ?? 0) & 0xf0;
  const isPress =
    (kind === NOTE_ON && (data[2] ?? 0) > 0) ||
    (kind === CONTROL && (data[2] ?? 0) >= DOWN) ||
    kind === PROGRAM;
  return isPress ? `midi ${kind} ${data[1] ?? 0}` : null;
}

/** What a pedal is called: "PageDown", "MIDI control 64". */
export function pedalName(pedal: Pedal): string {
  const [way, first, second] = pedal.split(' ');
  if (way === 'key') return first!.replace(/^(?:Key|Digit)/, '').replace(/([a-z])([A-Z])/g, '$1 $2');
  const kind = { [NOTE_ON]: 'note', [CONTROL]: 'control', [PROGRAM]: 'program' }[Number(first)];
  return `MIDI ${kind ?? ''} ${second}`;
}

function stored(): PedalBoard {
  try {
    const found: unknown = JSON.parse(localStorage.getItem(PLACE) ?? 'null');
    if (typeof found !== 'object' || found === null) return AT_FIRST;
    const known = PEDAL_ACTIONS.map(({ id }) => [id, (found as Record<string, unknown>)[id]] as const);
    return Object.fromEntries(known.filter(([, pedal]) => typeof pedal === 'string'));
  } catch {
    return AT_FIRST;
  }
}

export class Pedals {
  board: PedalBoard = $state.raw(AT_FIRST);
  /** The player looks at what they do. */
  isShown = $state(false);
  /** The action whose pedal is waited for. */
  learning: PedalAction | null = $state(null);
  /** What the player should know about MIDI. */
  problem = $state('');
  readonly #act: (action: PedalAction) => void;
  #midi: MIDIAccess | null = null;

  constructor(act: (action: PedalAction) => void) {
    this.#act = act;
    if (typeof localStorage !== 'undefined') this.board = stored();
    // Asked for only where a pedal of this kind is known: browsers ask the player.
    if (Object.values(this.board).some((pedal) => pedal.startsWith('midi'))) void this.openMidi();
  }

  actionOf(pedal: Pedal | null): PedalAction | undefined {
    return PEDAL_ACTIONS.find(({ id }) => pedal !== null && this.board[id] === pedal)?.id;
  }

  /** A pedal has been pressed: it is learnt where that is waited for, else it acts. Tells whether it meant anything. */
  press(pedal: Pedal | null): boolean {
    if (pedal === null) return false;
    if (this.learning) {
      this.assign(this.learning, pedal);
      this.learning = null;
      return true;
    }
    const action = this.actionOf(pedal);
    if (action) this.#act(action);
    return action !== undefined;
  }

  /** A pedal does one thing; what it did before is let go. */
  assign(action: PedalAction, pedal: Pedal | null): void {
    const others = Object.entries(this.board).filter(([id, own]) => id !== action && own !== pedal);
    this.board = { ...Object.fromEntries(others), ...(pedal ? { [action]: pedal } : {}) };
    try {
      localStorage.setItem(PLACE, JSON.stringify(this.board));
    } catch {
      // It works for as long as the page is open.
    }
  }

  learn(action: PedalAction): void {
    this.learning = this.learning === action ? null : action;
    if (this.learning) void this.openMidi();
  }

  async openMidi(): Promise<void> {
    if (this.#midi || typeof navigator === 'undefined' || !('requestMIDIAccess' in navigator)) return;
    try {
      const access = await navigator.requestMIDIAccess();
      this.#midi = access;
      const listen = () => {
        for (const input of access.inputs.values()) {
          input.onmidimessage = ({ data }) => void (data && this.press(pedalOfMidi(data)));
        }
      };
      listen();
      access.onstatechange = listen;
      this.problem = '';
    } catch {
      this.problem = 'The browser can’t use MIDI instruments; pedals that send keys work all the same.';
    }
  }

  close(): void {
    for (const input of this.#midi?.inputs.values() ?? []) input.onmidimessage = null;
    if (this.#midi) this.#midi.onstatechange = null;
    this.#midi = null;
  }
}
