/** The sounds of the band, made in the program. */
import * as Tone from 'tone';
import { DRUMS } from '../core/practice/feel';
import { PARTS, type Part, type SoundEvent } from '../core/practice/events';

/** Plays an event at a second of the audio clock, for some seconds. */
type Voice = (event: SoundEvent, at: number, seconds: number) => void;

export interface Band {
  readonly play: (event: SoundEvent, at: number, seconds: number) => void;
  /** A stroke of the count-in, heard even where the click is muted. */
  readonly count: (event: SoundEvent, at: number) => void;
  /** Decibels, or silence. */
  readonly setVolume: (part: Part, decibels: number, isMuted: boolean) => void;
  readonly dispose: () => void;
}

const pitch = (midi: number) => Tone.Frequency(midi, 'midi').toFrequency();

/** Builds the voices in the audio context of the moment. */
export function makeBand(): Band {
  const limiter = new Tone.Limiter(-3).toDestination();
  const channels = new Map(PARTS.map((part) => [part, new Tone.Volume(0).connect(limiter)]));
  const out = (part: Part) => channels.get(part)!;
  const disposables: { dispose: () => unknown }[] = [limiter, ...channels.values()];
  const keep = <T extends { dispose: () => unknown }>(node: T): T => {
    disposables.push(node);
    return node;
  };

  const bass = keep(
    new Tone.MonoSynth({
      oscillator: { type: 'triangle' },
      filter: { Q: 1, type: 'lowpass', rolloff: -24 },
      envelope: { attack: 0.008, decay: 0.3, sustain: 0.5, release: 0.12 },
      filterEnvelope: { attack: 0.005, decay: 0.2, sustain: 0.4, baseFrequency: 120, octaves: 3.2 },
      volume: -4
    }).connect(out('bass'))
  );
  // A plain, slightly hollow tone in the middle register: thirds and sevenths stand out of it.
  const chords = keep(
    new Tone.PolySynth(Tone.Synth, {
      oscillator: { type: 'fmtriangle', modulationIndex: 1.2, harmonicity: 2 },
      envelope: { attack: 0.01, decay: 0.5, sustain: 0.35, release: 0.2 },
      volume: -14
    }).connect(out('chords'))
  );
  const line = keep(
    new Tone.PolySynth(Tone.Synth, {
      oscillator: { type: 'fatsawtooth', count: 2, spread: 8 },
      envelope: { attack: 0.003, decay: 0.45, sustain: 0.05, release: 0.15 },
      volume: -12
    }).connect(out('line'))
  );
  const kick = keep(
    new Tone.MembraneSynth({ pitchDecay: 0.03, octaves: 5, volume: -6 }).connect(out('drums'))
  );
  const noise = (decay: number, frequency: number, type: 'highpass' | 'bandpass', volume: number) => {
    const filter = keep(new Tone.Filter(frequency, type).connect(out('drums')));
    return keep(
      new Tone.NoiseSynth({ envelope: { attack: 0.001, decay, sustain: 0 }, volume }).connect(filter)
    );
  };
  const snare = noise(0.14, 1800, 'bandpass', -8);
  const hat = noise(0.05, 8000, 'highpass', -14);
  const ride = noise(0.25, 6000, 'highpass', -18);
  const rim = noise(0.03, 2600, 'bandpass', -6);
  const ticker = (goal: Tone.InputNode) =>
    keep(
      new Tone.Synth({
        oscillator: { type: 'square' },
        envelope: { attack: 0.001, decay: 0.04, sustain: 0, release: 0.01 },
        volume: -16
      }).connect(goal)
    );
  const click = ticker(out('click'));
  const counter = ticker(limiter);
  const tick =
    (synth: Tone.Synth) =>
    ({ midi, velocity }: SoundEvent, at: number) =>
      void synth.triggerAttackRelease(midi === DRUMS.accent ? 1760 : 1320, 0.03, at, velocity);

  const hit =
    (voice: Tone.NoiseSynth, seconds: number): Voice =>
    (event, at) =>
      void voice.triggerAttackRelease(seconds, at, event.velocity);
  const drums: Readonly<Record<number, Voice>> = {
    [DRUMS.kick]: (event, at) => void kick.triggerAttackRelease('C1', 0.1, at, event.velocity),
    [DRUMS.snare]: hit(snare, 0.12),
    [DRUMS.hat]: hit(hat, 0.04),
    [DRUMS.ride]: hit(ride, 0.2),
    [DRUMS.rim]: hit(rim, 0.03)
  };
  const sung =
    (synth: Tone.MonoSynth | Tone.PolySynth): Voice =>
    ({ midi, velocity }, at, seconds) =>
      void synth.triggerAttackRelease(pitch(midi), Math.max(0.03, seconds * 0.95), at, velocity);
  const voices: Readonly<Record<Part, Voice>> = {
    bass: sung(bass),
    chords: sung(chords),
    line: sung(line),
    drums: (event, at, seconds) => drums[event.midi]?.(event, at, seconds),
    click: tick(click)
  };
  return {
    play: (event, at, seconds) => {
      try {
        voices[event.part](event, at, seconds);
      } catch {
        // Two strokes of one drum at the same moment: one of them is heard.
      }
    },
    count: tick(counter),
    setVolume: (part, decibels, isMuted) => {
      const channel = out(part);
      channel.volume.value = decibels;
      channel.mute = isMuted;
    },
    dispose: () => disposables.forEach((node) => node.dispose())
  };
}
