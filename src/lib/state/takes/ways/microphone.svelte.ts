/** What a microphone or an interface hears while the band plays: sent while it is played, listened to when it is over. */
import type { Microphone } from '$lib/audio/input/microphone';
import type { RecordedBlock } from '$lib/core/takes/model';
import { dayHere } from '../../day-here';
import { settings } from '../../settings.svelte';
import { keepTake } from '../client';
import { heardParts, joinedBlocks, LONGEST_SECONDS, plainParts, takeName } from '../made-of';
import { knownSounds } from '../known-sounds';
import { latencyOf } from '../../input/latency';
import { RETRY } from '../corrections';
import { hearing } from '../hearing.svelte';
import { SoundUpload } from '../sound-upload';
import { frameIn, ownIn, type LiveWay, type Room } from './way';

/** Levels, full scale 1: over the one it is too loud, under the other nothing is heard. */
export const LEVELS = { clips: 0.985, silent: 0.004 } as const;
/** Milliseconds in which the last sound comes in. */
const FLUSHED = 2000;

interface Recording {
  readonly id: string;
  readonly upload: SoundUpload;
  readonly blocks: RecordedBlock[];
  /** Of the band: beats a minute, and the second at which its first beat came in. */
  readonly tempo: number;
  readonly start: number;
}

export class MicrophoneWay implements LiveWay {
  /** The light is on: the microphone is being listened to. */
  isOn = $state(false);
  /** Of the input, 0 to 1, and whether it was too loud lately. */
  level = $state(0);
  isClipping = $state(false);
  /** Sound that could not be sent yet, as a sentence. */
  waits = $state('');

  #microphone: Microphone | null = null;
  #recording: Recording | null = null;
  /** Frame of the clock at which the recording begins. */
  #origin = 0;

  readonly #room: Room;

  constructor(room: Room) {
    this.#room = room;
  }

  /** Asks for the microphone, counts in, and records while the band plays. */
  async begin(): Promise<void> {
    const { notices, work, trading, rehearsal, shelf } = this.#room;
    notices.problem = '';
    const microphone = await this.open(() => {
      void this.finish().then(
        () => (notices.problem = 'The microphone was disconnected. What was recorded until then is kept.')
      );
    });
    work.doing = '';
    if (!microphone) return;
    this.#microphone = microphone;
    if (!trading.callOnStand()) {
      this.close();
      return;
    }
    await rehearsal.transport.play();
    const first = rehearsal.transport.firstBeat;
    if (!first) {
      this.close();
      notices.problem = rehearsal.notice.problem;
      return;
    }
    const id = crypto.randomUUID();
    const { rate } = microphone;
    const now = Date.now();
    const origin = microphone.now();
    const latency = latencyOf(microphone.name);
    const start = first.second - origin + (latency ?? 0);
    this.#origin = Math.round(origin * rate);
    const take = {
      id,
      name: takeName(now),
      playedAt: now,
      day: dayHere(now),
      seconds: 0,
      data: {
        ...frameIn(this.#room, 'microphone', first.tempo, start),
        ...plainParts([]),
        latency,
        ...trading.overSeconds(first.tempo, LONGEST_SECONDS)
      }
    };
    // The take is there from its first moment on: what is torn off is kept as far as it came.
    const upload = new SoundUpload(shelf.chart, id, rate, () => keepTake(shelf.chart, take));
    this.#recording = { id, upload, blocks: [], tempo: first.tempo, start };
    this.isOn = true;
    void upload.send();
  }

  /** Opens the input that is set; null, and told, where that is refused. `onlost`: it was disconnected. */
  async open(onlost: () => void, onblock?: (block: RecordedBlock) => void): Promise<Microphone | null> {
    const { notices, work } = this.#room;
    work.doing = 'The browser asks whether it may listen';
    try {
      const { openMicrophone } = await import('$lib/audio/input/microphone');
      return await openMicrophone(
        (block) => {
          this.#hear(block);
          onblock?.(block);
        },
        onlost,
        settings.now.input
      );
    } catch (error) {
      notices.problem = (error as Error).message;
      work.doing = '';
      return null;
    }
  }

  #hear(block: RecordedBlock): void {
    const loudest = block.samples.reduce((most, sample) => Math.max(most, Math.abs(sample)), 0);
    this.level = loudest;
    if (loudest >= LEVELS.clips) this.isClipping = true;
    const recording = this.#recording;
    if (!recording) return;
    const skip = Math.max(0, this.#origin - block.frame);
    const samples = block.samples.subarray(skip);
    if (samples.length === 0) return;
    recording.blocks.push({ frame: block.frame + skip, samples: samples as Float32Array<ArrayBuffer> });
    recording.upload.add(samples);
    this.waits = recording.upload.problem;
    if (block.frame - this.#origin > LONGEST_SECONDS * recording.upload.rate) {
      this.#room.notices.said = `A take has ${LONGEST_SECONDS / 60} minutes at most; this one was ended there.`;
      void this.finish();
    }
  }

  /** Ends the recording: the rest of the sound is sent, then it is listened to. */
  async finish(): Promise<void> {
    const recording = this.#recording;
    const microphone = this.#microphone;
    if (!recording || !microphone) return;
    const { rehearsal } = this.#room;
    const { rate } = microphone;
    rehearsal.transport.stop();
    // A page that has slept may hear nothing of it any more: what has come in is read.
    await Promise.race([microphone.flush(), new Promise((over) => setTimeout(over, FLUSHED))]);
    this.#recording = null;
    this.close();
    await hearing(recording.id, () => this.#read(recording, rate));
  }

  /** Listens to what was recorded and writes it into the take. A view that was left meanwhile does so to the end. */
  async #read(recording: Recording, rate: number): Promise<void> {
    const { rehearsal, work, shelf } = this.#room;
    const samples = joinedBlocks(recording.blocks);
    const { tempo, start } = recording;
    const known = knownSounds(rehearsal, tempo, start, samples.length / rate);
    const heard = await work.run('What you played is listened to', (listener) =>
      listener.listen(samples, rate, work.onShare(), known)
    );
    // A server that is away is waited for: the take is in the page until it has arrived.
    while (!(await recording.upload.send()) && !shelf.isClosed) {
      this.waits = recording.upload.problem;
      await new Promise((resolve) => setTimeout(resolve, RETRY));
    }
    this.waits = '';
    await shelf.hear(
      recording.id,
      samples.length / rate,
      heard && ((data) => ownIn(this.#room, { ...data, ...heardParts(heard) }))
    );
  }

  /** Nothing is heard any more. */
  quiet(): void {
    this.level = 0;
    this.isClipping = false;
  }

  close(): void {
    this.#microphone?.close();
    this.#microphone = null;
    this.isOn = false;
    this.quiet();
  }
}
