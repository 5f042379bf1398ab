/** The takes of a chart: the rooms of which each does one thing, put together. */
import type { SoundFault } from '$lib/core/takes/model';
import { logBox } from '../practice/practice-log';
import { Rehearsal } from '../stand/rehearsal.svelte';
import type { Workspace } from '../chart/workspace.svelte';
import { Correcting } from './correcting.svelte';
import { BesidePage } from './beside-page.svelte';
import { Judging } from './judging.svelte';
import { Notices } from './notices.svelte';
import { TakeShelf } from './shelf.svelte';
import { Trading } from './trading.svelte';
import { MicrophoneWay } from './ways/microphone.svelte';
import { MidiWay } from './ways/midi.svelte';
import type { LiveWay, Room } from './ways/way';

export const FAULT_WORDS: Readonly<Record<SoundFault | 'cut short', string>> = {
  silence: 'Nothing can be heard in it: is the cable in, and the right input chosen?',
  noise: 'No notes could be told from the noise in it. Come nearer to the microphone, or turn the band down.',
  clipped: 'It was too loud and is clipped: turn the input down. What could be read was read.',
  'several notes at once':
    'Several notes sound at once in it. Only one line at a time can be read, so the result may be wrong.',
  'cut short': 'The sound ends before it should; it is read as far as it goes.'
};

export class Takes implements Room {
  readonly workspace: Workspace;
  /** The stand that takes are played to. */
  readonly rehearsal: Rehearsal;
  readonly notices = new Notices();
  readonly work = new BesidePage();
  readonly shelf: TakeShelf;
  readonly judging: Judging;
  readonly correcting: Correcting;
  readonly trading: Trading;
  readonly microphone: MicrophoneWay;
  readonly midi: MidiWay;

  constructor(workspace: Workspace) {
    this.workspace = workspace;
    this.rehearsal = new Rehearsal(workspace, {
      write: (...rows) => logBox.put(...rows.map((row) => ({ ...row, kind: 'take' as const }))),
      isForTake: true
    });
    this.shelf = new TakeShelf(workspace.document.id, this.notices);
    this.judging = new Judging(workspace, this.shelf);
    this.correcting = new Correcting(this.shelf);
    this.trading = new Trading(workspace, this.rehearsal, this.notices);
    this.microphone = new MicrophoneWay(this);
    this.midi = new MidiWay(this);
  }

  get #live(): LiveWay | null {
    return this.microphone.isOn ? this.microphone : this.midi.isOn ? this.midi : null;
  }
  get isRecording(): boolean {
    return this.#live !== null;
  }

  /** Begins a recording, or ends the one that goes on. */
  async record(way: LiveWay = this.microphone): Promise<void> {
    await (this.#live ? this.finish() : way.begin());
  }

  async finish(): Promise<void> {
    await this.#live?.finish();
  }

  /** Whose turn it is while bars are traded, and the beats left of it; null before and after. */
  readonly turn = $derived.by(() => (this.isRecording ? this.trading.turnNow() : null));

  close(): void {
    this.shelf.close();
    const end = () => {
      this.microphone.close();
      this.midi.close();
      this.rehearsal.close();
      this.work.stop();
    };
    // What is being recorded when the view is left is read to its end.
    if (this.isRecording) void this.finish().finally(end);
    else end();
  }
}
