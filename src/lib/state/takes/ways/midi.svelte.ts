/** What a MIDI instrument plays with the band. */
/* eslint-disable svelte/prefer-svelte-reactivity -- the map here is of a recording under way, which nothing shows */
import type { PlayedNote } from '$lib/core/takes/model';
import { plainParts, takeName } from '../made-of';
import { latencyOf, MIDI_INPUT } from '../../input/latency';
import { frameIn, ownIn, type LiveWay, type Room } from './way';

interface Recording {
  readonly notes: PlayedNote[];
  /** Keys that are down, each since its second, and how hard they were struck. */
  readonly sounding: Map<number, { readonly at: number; readonly level: number }>;
  readonly stop: () => void;
}

/** Seconds that a note lasts at least. */
const SHORTEST = 0.02;
/** A key that was struck is never silent. */
const SOFTEST = 0.01;

export class MidiWay implements LiveWay {
  isOn = $state(false);
  /** 1 once something has come in. */
  level = $state(0);
  #recording: Recording | null = null;

  readonly #room: Room;

  constructor(room: Room) {
    this.#room = room;
  }

  async begin(): Promise<void> {
    const { notices, rehearsal, trading } = this.#room;
    notices.problem = '';
    const audio = await import('$lib/audio/midi-in').catch(() => null);
    let zero = 0;
    const notes: PlayedNote[] = [];
    const sounding = new Map<number, { readonly at: number; readonly level: number }>();
    const latency = latencyOf(MIDI_INPUT);
    const second = (at: number) => at / 1000 - zero - (latency ?? 0);
    const release = ({ midi, at }: { readonly midi: number; readonly at: number }) => {
      const from = sounding.get(midi);
      sounding.delete(midi);
      if (from) notes.push({ ...from, seconds: Math.max(SHORTEST, second(at) - from.at), midi });
    };
    const stop = await audio
      ?.listenToMidi((stroke) => {
        release(stroke);
        sounding.set(stroke.midi, { at: second(stroke.at), level: Math.max(SOFTEST, stroke.velocity) });
        this.level = 1;
      }, release)
      .catch(() => null);
    if (!audio || !stop) {
      notices.problem =
        'This browser can’t use MIDI instruments. Record with the microphone, or import a MIDI file.';
      return;
    }
    if (audio.midiInputs() === 0) {
      stop();
      notices.problem = 'No MIDI instrument is plugged in. Plug one in and try again.';
      return;
    }
    if (!trading.callOnStand()) {
      stop();
      return;
    }
    await rehearsal.transport.play();
    const first = rehearsal.transport.firstBeat;
    const now = rehearsal.transport.audioNow;
    if (!first || now === null) {
      stop();
      notices.problem = rehearsal.notice.problem;
      return;
    }
    // Times of the page against those of the audio clock: the second 0 of the take is the first beat.
    zero = performance.now() / 1000 + (first.second - now);
    this.#recording = { notes, sounding, stop };
    this.isOn = true;
  }

  async finish(): Promise<void> {
    const recording = this.#recording;
    const { rehearsal, trading, notices, shelf } = this.#room;
    const first = rehearsal.transport.firstBeat;
    if (!recording || !first) return;
    const end = (rehearsal.transport.audioNow ?? first.second) - first.second;
    rehearsal.transport.stop();
    this.close();
    for (const [midi, from] of recording.sounding)
      recording.notes.push({ ...from, seconds: Math.max(SHORTEST, end - from.at), midi });
    const notes = recording.notes.filter(({ at }) => at > -1).sort((a, b) => a.at - b.at);
    if (notes.length === 0) {
      notices.problem = 'No note came in from the instrument; nothing was kept.';
      return;
    }
    await shelf.keep({
      name: takeName(Date.now()),
      seconds: end,
      data: ownIn(this.#room, {
        ...frameIn(this.#room, 'midi', first.tempo, 0),
        latency: latencyOf(MIDI_INPUT),
        ...plainParts(notes),
        ...trading.overSeconds(first.tempo, end)
      })
    });
  }

  close(): void {
    this.#recording?.stop();
    this.#recording = null;
    this.isOn = false;
    this.level = 0;
  }
}
