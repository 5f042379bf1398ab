/** A recording of the player's own as the band of a rehearsal: taken in, its beat found and corrected, kept for the chart. */
import { draggedBeats, findBeats, tappedBeats, type BeatGrid } from '$lib/core/practice/beats';
import type { Audition } from '$lib/audio/backing';
import { firstOf } from '$lib/core/base/list';
import { NO_SOUND } from '../no-sound';
import { keepRecording, storedRecording } from './recordings';

export interface Recording {
  readonly name: string;
  readonly file: Blob;
  readonly sound: AudioBuffer;
  readonly grid: BeatGrid;
}

const MEGABYTE = 1024 * 1024;
const LARGEST = 120;
const LONGEST_MINUTES = 20;
/** Where nothing is found: the player taps it. */
const UNKNOWN: BeatGrid = { first: 0, tempo: 100 };
/** Milliseconds after the last correction at which it is stored. */
const SETTLED = 600;
/** Speeds that are kept made. */
const MOST_SPEEDS = 2;

export class Backing {
  recording: Recording | null = $state.raw(null);
  /** The band of the rehearsal gives way to it. */
  isOn = $state(true);
  isReading = $state(false);
  /** What is shown is what is stored. */
  isKept = $state(true);
  /** Something that the player should know. */
  problem = $state('');
  /** Taps of the beat while the recording is listened to; null while it is not. */
  taps: readonly number[] | null = $state.raw(null);
  /** What was let go last, to be brought back. */
  gone: Recording | null = $state.raw(null);
  #audition: Audition | null = null;
  #timer: ReturnType<typeof setTimeout> | undefined;
  readonly #chart: string;
  readonly #onchange: () => void;

  constructor(chart: string, onchange: () => void) {
    this.#chart = chart;
    this.#onchange = onchange;
  }

  /** What plays instead of the band; null where nothing does. */
  get playing(): Recording | null {
    return this.isOn ? this.recording : null;
  }

  setOn(isOn: boolean): void {
    this.isOn = isOn;
    this.#onchange();
  }

  /** Loads what was kept for the chart. */
  async load(): Promise<void> {
    const stored = await storedRecording(this.#chart);
    if (!stored || this.recording) return;
    try {
      const { readRecording } = await import('$lib/audio/backing');
      this.recording = { ...stored, sound: await readRecording(stored.file) };
      this.#onchange();
    } catch {
      this.problem = `The recording “${stored.name}” that was kept here cannot be read any more.`;
    }
  }

  /** Takes in the first of some files. */
  async take(files: FileList | null | undefined): Promise<void> {
    const file = files?.[0];
    if (!file) return;
    this.problem = '';
    if (file.size > LARGEST * MEGABYTE) {
      this.problem = `“${file.name}” is larger than ${LARGEST} MB; a compressed file of it will do.`;
      return;
    }
    this.isReading = true;
    try {
      const { readRecording, mono } = await import('$lib/audio/backing');
      const sound = await readRecording(file);
      if (sound.duration > 60 * LONGEST_MINUTES) {
        this.problem = `“${file.name}” lasts longer than ${LONGEST_MINUTES} minutes; cut out the tune.`;
        return;
      }
      const found = findBeats(mono(sound), sound.sampleRate);
      if (!found) this.problem = 'No beat was found. Listen and tap it.';
      this.#stretched.clear();
      this.recording = { name: file.name, file, sound, grid: found ?? UNKNOWN };
      this.isOn = true;
      this.#onchange();
      await this.#keep();
    } catch {
      this.problem = `“${file.name}” is no sound that this browser can read.`;
    } finally {
      this.isReading = false;
    }
  }

  /** The recording at the speeds that were played last, each made once. */
  // eslint-disable-next-line svelte/prefer-svelte-reactivity -- nothing is drawn of it
  readonly #stretched = new Map<string, AudioBuffer | null>();
  /** A speed is being made; until then the recording is played in grains. */
  isStretching = $state(false);
  /** The speed that was made last, as a part of its own. */
  speed: number | null = $state(null);

  /** The recording at another speed; null where that is not made. */
  stretched(rate: number): AudioBuffer | null {
    return this.#stretched.get(rate.toFixed(4)) ?? null;
  }

  /** Makes the recording ready at a speed, at its own pitch. */
  async stretch(rate: number): Promise<void> {
    const { recording } = this;
    const key = rate.toFixed(4);
    if (!recording || Math.abs(rate - 1) < 1e-4 || this.#stretched.has(key) || this.isStretching) return;
    this.isStretching = true;
    const maker = await import('$lib/audio/stretch').catch(() => null);
    if (!maker) {
      // The server is away: asked for again with the next round.
      this.isStretching = false;
      return;
    }
    try {
      const sound = await maker.stretched(recording.sound, rate);
      if (this.recording?.sound !== recording.sound) return;
      while (this.#stretched.size >= MOST_SPEEDS)
        this.#stretched.delete(firstOf([...this.#stretched.keys()]));
      this.#stretched.set(key, sound);
      this.speed = rate;
    } catch {
      // It goes on in grains, and is not tried again.
      this.#stretched.set(key, null);
    } finally {
      this.isStretching = false;
    }
  }

  letGo(): void {
    this.#stretched.clear();
    this.stopTapping();
    this.gone = this.recording;
    this.recording = null;
    this.#onchange();
    void keepRecording(this.#chart, null);
  }

  restore(): void {
    this.recording = this.gone;
    this.gone = null;
    this.#onchange();
    void this.#keep();
  }

  setGrid(grid: BeatGrid | null): void {
    if (!grid || !this.recording) return;
    this.recording = { ...this.recording, grid };
    this.isKept = false;
    this.#onchange();
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.#keep(), SETTLED);
  }

  /** A beat of the form is brought to another second. */
  drag(beat: number, second: number): void {
    if (this.recording) this.setGrid(draggedBeats(this.recording.grid, beat, second));
  }

  /** Listened to from its beginning, to be tapped along. */
  async startTapping(): Promise<void> {
    const { recording } = this;
    if (!recording) return;
    this.stopTapping();
    try {
      const { audition } = await import('$lib/audio/backing');
      this.#audition = await audition(recording.sound, () => this.stopTapping());
      this.taps = [];
    } catch {
      this.problem = NO_SOUND;
    }
  }

  tap(): void {
    if (!this.#audition || !this.taps) return;
    this.taps = [...this.taps, this.#audition.second()];
    this.setGrid(tappedBeats(this.taps));
  }

  stopTapping(): void {
    this.#audition?.stop();
    this.#audition = null;
    this.taps = null;
  }

  async #keep(): Promise<void> {
    const { recording } = this;
    if (!recording) return;
    const { name, file, grid } = recording;
    const isKept = await keepRecording(this.#chart, { name, file, grid: { ...grid } });
    if (!isKept) {
      this.problem = 'The browser can’t keep it: the recording plays until you leave the page.';
    }
    this.isKept = this.recording === recording;
  }

  close(): void {
    this.stopTapping();
    clearTimeout(this.#timer);
  }
}
