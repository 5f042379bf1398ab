/** The band as it sounds: sampled instruments, a pad for drones, a click, and a little room, in balance. */
import { entryOf, nth, sure } from '../core/base/list';
import * as Tone from 'tone';
import { DRUMS, type ChordSound } from '../core/practice/feel';
import { PARTS, type Part, type SoundEvent } from '../core/practice/events';
import type { Sheet, Sounds } from './sounds';

/** Seconds in which a slurred note comes up: no pick is heard. */
const SLURRED_FADE = 0.015;
/** Where in a note a curl begins, as a part of it. */
const CURLS_FROM = 0.35;
/** Shakes a second, and seconds until they begin. */
const SHAKES = 5.5;
const SHAKES_AFTER = 0.25;

const isMoving = ({ glide, vibrato, curl, isSlurred }: SoundEvent) =>
  glide !== undefined || vibrato !== undefined || curl !== undefined || isSlurred === true;

/** A vibrato as points to go through: the time after the start of the note, and how far to either side, -1 to 1; it grows. */
export function shakesOver(
  seconds: number,
  from: number
): { readonly after: number; readonly cents: number }[] {
  const begin = Math.max(from, Math.min(SHAKES_AFTER, seconds / 3));
  const count = Math.floor((seconds - begin) * SHAKES * 2);
  const points = Array.from({ length: Math.max(0, count) }, (_, i) => ({
    after: begin + (i + 1) / (SHAKES * 2),
    cents: (i % 2 === 0 ? 1 : -1) * Math.min(1, (i + 1) / 4)
  }));
  return points.length > 0 ? [{ after: begin, cents: 0 }, ...points] : [];
}

/** Plays an event at a second of the audio clock, for some seconds. */
type Voice = (event: SoundEvent, at: number, seconds: number) => void;

export interface Band {
  readonly play: Voice;
  /** A stroke of the count-in, heard even where the click is muted. */
  readonly count: (event: SoundEvent, at: number) => void;
  /** Decibels over the band's own balance, or silence. */
  readonly setVolume: (part: Part, decibels: number, isMuted: boolean) => void;
  readonly dispose: () => void;
}

/** Decibels that bring each part to its place in the band as the ear has it; measured by `npm run bench`. */
const BALANCE: Readonly<Record<Part, number>> = {
  bass: -2,
  chords: -7.5,
  drums: -0.5,
  line: -2.5,
  click: 14,
  backing: -3
};
/** How much of each part the room gives back, in decibels under it. */
const ROOM: Readonly<Partial<Record<Part, number>>> = { chords: -18, drums: -20, line: -16 };
/** Seconds that the room rings. */
const ROOM_LENGTH = 0.55;
/** Seconds in which a note dies when it is let go. */
const RELEASE: Readonly<Record<'bass' | 'chords' | 'line', number>> = {
  bass: 0.09,
  chords: 0.25,
  line: 0.12
};
/** Under this loudness what is struck sounds softer, not only less. */
const SOFT = 0.5;
/** Seconds for which everything may still sound after the last event: a cymbal, the room. */
export const TAIL = 2.6;

/** Notes of a drone that may sound at once, those that die away included. */
const HELD_VOICES = 14;
/** Decibels of the count-in: that of a click turned down a little. */
const COUNT = 8;

const pitch = (midi: number) => Tone.Frequency(midi, 'midi').toFrequency();

/** Where a band plays, and the player's own recording that it goes with. */
interface Place {
  readonly context?: Tone.BaseContext;
  readonly backing?: AudioBuffer | null;
  /** The recording at another speed, where it has been made. */
  readonly stretched?: (rate: number) => AudioBuffer | null;
}

/** Builds the voices in an audio context. A file is rendered without the limiter, which knows only what has been. */
export function makeBand(
  { sheets }: Sounds,
  chordSound: ChordSound,
  { context = Tone.getContext(), backing = null, stretched }: Place = {}
): Band {
  const disposables: { dispose: () => unknown }[] = [];
  const keep = <T extends { dispose: () => unknown }>(node: T): T => {
    disposables.push(node);
    return node;
  };
  const master = keep(new Tone.Gain({ context, gain: 1 }));
  if (context.isOffline) master.connect(context.destination);
  else master.connect(keep(new Tone.Limiter({ context, threshold: -1.5 })).toDestination());
  const room = keep(new Tone.Convolver({ context, url: roomOf(context.sampleRate), normalize: true }));
  room.connect(master);
  const channels = new Map(
    PARTS.map((part) => {
      const channel = keep(new Tone.Volume({ context, volume: BALANCE[part] }));
      channel.connect(master);
      const send = ROOM[part];
      if (send !== undefined) channel.connect(keep(new Tone.Volume({ context, volume: send })).connect(room));
      return [part, channel];
    })
  );
  const out = (part: Part) => entryOf(channels, part);

  const sampler = (sheet: Sheet, part: Part, release: number) =>
    keep(
      new Tone.Sampler({
        context,
        urls: Object.fromEntries(
          [...sheet].map(([note, buffer]) => [note, new Tone.ToneAudioBuffer(buffer)])
        ),
        release
      }).connect(out(part))
    );
  const sung = (sheet: Sheet, part: 'bass' | 'chords' | 'line'): Voice => {
    const instrument = sampler(sheet, part, RELEASE[part]);
    return ({ midi, velocity }, at, seconds) =>
      void instrument.triggerAttackRelease(pitch(midi), Math.max(0.05, seconds), at, velocity);
  };
  /**
   * What is held longer than a string or a bar rings. Voices of its own, one after another: the library's own chord player
   * waits for a clock that a file being rendered does not have.
   */
  const pad = (part: Part): Voice => {
    let voices: Tone.Synth[] = [];
    let next = 0;
    return ({ midi, velocity }, at, seconds) => {
      if (voices.length === 0) voices = Array.from({ length: HELD_VOICES }, () => padVoice(part));
      nth(voices, next).triggerAttackRelease(pitch(midi), seconds, at, velocity);
      next = (next + 1) % HELD_VOICES;
    };
  };
  const padVoice = (part: Part) =>
    keep(
      new Tone.Synth({
        context,
        oscillator: { type: 'fmtriangle', modulationIndex: 0.6, harmonicity: 1.005 },
        envelope: { attack: 0.35, decay: 0.4, sustain: 0.8, release: 0.6 },
        volume: -11.5
      }).connect(out(part))
    );
  /** A bent or a slid note: one sample whose speed moves to its pitch. */
  const glided = (sheet: Sheet): Voice => {
    const notes = [...sheet.keys()];
    let running: { node: Tone.ToneBufferSource; end: number }[] = [];
    return ({ midi, velocity, beats, glide, vibrato, curl, isSlurred }, at, seconds) => {
      const nearest = notes.reduce((a, b) => (Math.abs(b - midi) < Math.abs(a - midi) ? b : a));
      const rate = (to: number) => 2 ** ((to - nearest) / 12);
      const url = new Tone.ToneAudioBuffer(sure(sheet.get(nearest), 'sheet'));
      const source = new Tone.ToneBufferSource({
        context,
        url,
        fadeIn: isSlurred ? SLURRED_FADE : 0.002,
        fadeOut: RELEASE.line
      });
      source.connect(out('line'));
      const travel = glide ? (glide.beats * seconds) / beats : 0;
      source.playbackRate.setValueAtTime(rate(glide?.from ?? midi), at);
      if (glide) source.playbackRate.exponentialRampToValueAtTime(rate(midi), at + travel);
      if (curl !== undefined) {
        source.playbackRate.setValueAtTime(rate(midi), at + seconds * CURLS_FROM);
        source.playbackRate.exponentialRampToValueAtTime(rate(midi + curl / 100), at + seconds);
      }
      if (vibrato !== undefined && glide?.backTo === undefined) {
        for (const { after, cents } of shakesOver(seconds, travel)) {
          source.playbackRate.linearRampToValueAtTime(rate(midi + (cents * vibrato) / 100), at + after);
        }
      }
      if (glide?.backTo !== undefined) {
        // Let down at its end as fast as it was bent up.
        source.playbackRate.setValueAtTime(rate(midi), at + Math.max(travel, seconds - travel));
        source.playbackRate.exponentialRampToValueAtTime(rate(glide.backTo), at + seconds);
      }
      source.start(at, 0, seconds + RELEASE.line, velocity);
      const over = running.filter(({ end }) => end < at);
      over.forEach(({ node }) => node.dispose());
      running = [...running.filter(({ end }) => end >= at), { node: keep(source), end: at + seconds + 1 }];
    };
  };
  const heldOr = (voice: Voice, part: Part): Voice => {
    const held = pad(part);
    return (event, at, seconds) => (event.isHeld ? held : voice)(event, at, seconds);
  };

  const glidedOr =
    (struck: Voice, moving: Voice): Voice =>
    (event, at, seconds) =>
      (isMoving(event) ? moving : struck)(event, at, seconds);

  /** What is struck softly has a sound of its own, where the font has one. */
  const softly =
    (loud: Voice, soft: Voice): Voice =>
    (event, at, seconds) =>
      (event.velocity < SOFT ? soft : loud)(event, at, seconds);
  const sticks = sampler(sheets.drums, 'drums', 0.05);
  const softSticks = sampler(sheets.drumsSoft, 'drums', 0.05);
  const brushes = sampler(sheets.brushes, 'drums', 0.05);
  /** Made with its first stroke: what is not heard costs nothing. */
  const ticker = (goal: () => Tone.InputNode) => {
    let synth: Tone.Synth | undefined;
    return ({ midi, velocity }: SoundEvent, at: number) => {
      synth ??= keep(
        new Tone.Synth({
          context,
          oscillator: { type: 'square' },
          envelope: { attack: 0.001, decay: 0.04, sustain: 0, release: 0.01 },
          volume: -14
        }).connect(goal())
      );
      synth.triggerAttackRelease(midi === DRUMS.accent ? 1760 : 1320, 0.03, at, velocity);
    };
  };
  /** The recording, from a place of it on: as it is, or stretched to another speed; in grains where that is not made yet. */
  const backingTrack = (): Voice => {
    let running: Tone.ToneAudioNode[] = [];
    return ({ backing: place }, at, seconds) => {
      if (!backing || !place) return;
      const isItself = Math.abs(place.rate - 1) < 1e-4;
      const slower = isItself ? null : (stretched?.(place.rate) ?? null);
      const url = new Tone.ToneAudioBuffer(slower ?? backing);
      const source =
        isItself || slower
          ? new Tone.ToneBufferSource({ context, url, fadeIn: 0.004, fadeOut: 0.01 })
          : new Tone.GrainPlayer({ context, url, playbackRate: place.rate, grainSize: 0.14, overlap: 0.05 });
      source.connect(out('backing'));
      source.start(at, slower ? place.from / place.rate : place.from, seconds);
      // The one before still sounds to its end; those before that are over.
      while (running.length > 1) sure(running.shift(), 'running').dispose();
      running = [...running, keep(source)];
    };
  };
  const voices: Readonly<Record<Part, Voice>> = {
    bass: heldOr(sung(sheets.bass, 'bass'), 'bass'),
    chords: heldOr(sung(sheets[chordSound], 'chords'), 'chords'),
    line: glidedOr(
      softly(sung(sheets.lead, 'line'), sung(sheets.leadSoft, 'line')),
      softly(glided(sheets.lead), glided(sheets.leadSoft))
    ),
    // A stroke rings out; nothing lets it go.
    drums: ({ midi, velocity, isBrushed }, at) =>
      void (
        isBrushed && sheets.brushes.has(midi)
          ? brushes
          : velocity < SOFT && sheets.drumsSoft.has(midi)
            ? softSticks
            : sticks
      ).triggerAttack(pitch(midi), at, velocity),
    click: ticker(() => out('click')),
    backing: backingTrack()
  };
  return {
    play: (event, at, seconds) => voices[event.part](event, at, seconds),
    count: ticker(() => keep(new Tone.Volume({ context, volume: COUNT }).connect(master))),
    setVolume: (part, decibels, isMuted) => {
      const channel = out(part);
      channel.volume.value = BALANCE[part] + decibels;
      channel.mute = isMuted;
    },
    dispose: () => disposables.forEach((node) => node.dispose())
  };
}

/** A small room: noise that dies away, the same every time. */
function roomOf(sampleRate: number): AudioBuffer {
  const length = Math.round(ROOM_LENGTH * sampleRate);
  const buffer = new AudioBuffer({ length, sampleRate });
  const samples = buffer.getChannelData(0);
  let seed = 1;
  for (let i = 0; i < length; i++) {
    seed = (Math.imul(seed, 1103515245) + 12345) & 0x7fffffff;
    const noise = seed / 0x3fffffff - 1;
    samples[i] = noise * Math.exp((-6.9 * i) / length);
  }
  return buffer;
}
