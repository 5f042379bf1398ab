/**
 * The set that listening is measured on: lines in every kind of sound, tempo and subdivision, rendered by Debian's `fluidsynth` with its
 * General MIDI sound font. Made when it is asked for, never kept in the repository.
 */
import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseMidi, writeMidi, type MidiEvent } from 'midi-file';
import type { KnownSound } from '../../../src/lib/core/takes/model';
import { pitchAt } from '../../../src/lib/core/takes/player/string';
import type { Stroke } from '../../../src/lib/core/takes/player/perform';
import { chanceOf } from '../../../src/lib/core/line/chance';
import { answerBand } from '../../../src/lib/server/compute/band';
import { bandRequest } from '../../../src/lib/api/requests';

/** The sound font that the listener was tuned on, and one that it was not. */
export const FONTS = {
  own: '/usr/share/sounds/sf2/FluidR3_GM.sf2',
  other: '/usr/share/sounds/sf2/TimGM6mb.sf2'
} as const;
export type Font = keyof typeof FONTS;
export const RATE = 44_100;

/** Whether the set can be rendered here. */
export function hasSynthesizer(font: Font = 'own'): boolean {
  return existsSync(FONTS[font]);
}

/** A note as it was played, with what the hand did to its pitch. */
export type TrueNote = Pick<Stroke, 'at' | 'seconds' | 'midi' | 'bend' | 'release' | 'vibrato'>;

export interface Specimen {
  readonly kind: string;
  readonly name: string;
  readonly samples: Float32Array;
  readonly rate: number;
  readonly notes: readonly TrueNote[];
  /** What leaks in, where it can be known. */
  readonly known?: readonly KnownSound[];
}

interface Kind {
  readonly name: string;
  /** General MIDI program, from 0. */
  readonly program: number;
  /** Strings ring on for so many seconds. */
  readonly ring?: number;
  /** Signal to noise, in decibels. */
  readonly noise?: number;
  /** The band leaks in, so many decibels below. */
  readonly band?: number;
}

export const KINDS: readonly Kind[] = [
  { name: 'clean', program: 27 },
  { name: 'jazz', program: 26 },
  { name: 'steel', program: 25 },
  { name: 'driven', program: 29 },
  { name: 'nylon', program: 24 },
  { name: 'noise', program: 27, noise: 25 },
  { name: 'band', program: 27, band: 22 },
  { name: 'ringing', program: 25, ring: 1.2 }
];
export const TEMPOS = [60, 92, 126, 160] as const;
export const SUBDIVISIONS = ['eighths', 'swing', 'triplets', 'sixteenths'] as const;
type Subdivision = (typeof SUBDIVISIONS)[number];

/** The starts of the notes of a beat. */
const STARTS: Readonly<Record<Subdivision, readonly number[]>> = {
  eighths: [0, 1 / 2],
  swing: [0, 2 / 3],
  triplets: [0, 1 / 3, 2 / 3],
  sixteenths: [0, 1 / 4, 2 / 4, 3 / 4]
};
const SCALE = [0, 2, 3, 5, 7, 9, 10];
const BEATS = 16;

/** Semitones of a pitch wheel, and seconds from one of its messages to the next. */
const WHEEL = { semitones: 12, seconds: 0.008 } as const;

/** A line that walks about: steps mostly, leaps, repeated notes, now and then a rest. */
export function walk(tempo: number, subdivision: Subdivision, seed: number): TrueNote[] {
  const chance = chanceOf(seed, tempo, SUBDIVISIONS.indexOf(subdivision));
  const low = 40 + Math.floor(chance() * 20);
  const pool = Array.from({ length: 24 }, (_, i) => low + i).filter((midi) =>
    SCALE.includes((midi + seed) % 12)
  );
  let at = Math.floor(chance() * pool.length);
  const starts = Array.from({ length: BEATS }, (_, beat) => STARTS[subdivision].map((s) => beat + s)).flat();
  return starts.flatMap((start, i): TrueNote[] => {
    const way = chance() < 0.5 ? -1 : 1;
    const kind = chance();
    at += kind < 0.08 ? 0 : way * (kind < 0.7 ? 1 : kind < 0.9 ? 2 : 4);
    if (at < 0 || at >= pool.length) at = Math.max(0, Math.min(pool.length - 1, at - 2 * way * 2));
    if (chance() < 0.05) return [];
    const length = (starts[i + 1] ?? BEATS) - start;
    return [{ at: 0.5 + (start * 60) / tempo, seconds: (0.92 * length * 60) / tempo, midi: pool[at]! }];
  });
}

/** Messages of the pitch wheel, for a note whose pitch moves; the wheel stands still before the next one. */
function wheelOf(note: TrueNote): { at: number; event: MidiEvent }[] {
  const { at, midi, seconds, bend, release, vibrato } = note;
  if (!bend && !release && !vibrato) return [{ at: at - 0.002, event: wheel(0) }];
  const count = Math.ceil(seconds / WHEEL.seconds);
  return Array.from({ length: count }, (_, i) => {
    const after = i * WHEEL.seconds;
    return {
      at: at + (i === 0 ? -0.002 : after),
      event: wheel(pitchAt({ ...note, loudness: 1 }, after) - midi)
    };
  });
}
const wheel = (semitones: number): MidiEvent => ({
  deltaTime: 0,
  type: 'pitchBend',
  channel: 0,
  value: Math.max(-8192, Math.min(8191, Math.round((8192 * semitones) / WHEEL.semitones)))
});

export function midiOf(
  notes: readonly TrueNote[],
  program: number,
  ring: number | undefined,
  seed: number
): Uint8Array {
  const chance = chanceOf(seed, 77);
  const isMoving = notes.some(({ bend, release, vibrato }) => bend ?? release ?? vibrato);
  const moving = isMoving ? notes.flatMap(wheelOf) : [];
  const timed = notes.flatMap(({ at, seconds, midi }): { at: number; event: MidiEvent }[] => {
    const next = notes.find((other) => other.at > at && other.midi === midi);
    const long = ring === undefined ? seconds : Math.min(ring, (next?.at ?? Infinity) - at - 0.01);
    return [
      {
        at,
        event: {
          deltaTime: 0,
          type: 'noteOn',
          channel: 0,
          noteNumber: midi,
          velocity: 70 + Math.floor(chance() * 40)
        }
      },
      { at: at + long, event: { deltaTime: 0, type: 'noteOff', channel: 0, noteNumber: midi, velocity: 0 } }
    ];
  });
  const events: MidiEvent[] = [
    { deltaTime: 0, type: 'programChange', channel: 0, programNumber: program },
    ...[
      [101, 0],
      [100, 0],
      [6, WHEEL.semitones]
    ].map(([controllerType, value]): MidiEvent => ({
      deltaTime: 0,
      type: 'controller',
      channel: 0,
      controllerType: controllerType!,
      value: value!
    }))
  ];
  let last = 0;
  // 960 ticks a quarter at 120: 1,920 a second.
  for (const { at, event } of [...moving, ...timed].sort((a, b) => a.at - b.at)) {
    const tick = Math.round(at * 1920);
    events.push({ ...event, deltaTime: tick - last });
    last = tick;
  }
  events.push({ deltaTime: 0, type: 'endOfTrack', meta: true });
  const tempo: MidiEvent = { deltaTime: 0, type: 'setTempo', meta: true, microsecondsPerBeat: 500_000 };
  return Uint8Array.from(
    writeMidi({ header: { format: 0, numTracks: 1, ticksPerBeat: 960 }, tracks: [[tempo, ...events]] })
  );
}

export function rendered(dir: string, name: string, midi: Uint8Array, font: Font = 'own'): Float32Array {
  mkdirSync(dir, { recursive: true });
  const [from, to] = [join(dir, `${name}.mid`), join(dir, `${name}.raw`)];
  if (!existsSync(to)) {
    writeFileSync(from, midi);
    execFileSync(
      'fluidsynth',
      [
        '-ni',
        '-q',
        '-g',
        '0.6',
        '-r',
        String(RATE),
        '-T',
        'raw',
        '-O',
        'float',
        '-E',
        'little',
        '-F',
        to,
        FONTS[font],
        from
      ],
      { stdio: 'ignore' }
    );
  }
  const bytes = readFileSync(to);
  const stereo = new Float32Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength));
  return Float32Array.from(
    { length: stereo.length >> 1 },
    (_, i) => (stereo[2 * i]! + stereo[2 * i + 1]!) / 2
  );
}

const power = (samples: Float32Array) => samples.reduce((sum, x) => sum + x * x, 0) / samples.length;

/** Adds what is beside the line, so many decibels below it. */
function mixed(
  samples: Float32Array,
  beside: (i: number) => number,
  besidePower: number,
  below: number
): Float32Array {
  const gain = Math.sqrt(power(samples) / besidePower / 10 ** (below / 10));
  return samples.map((x, i) => x + gain * beside(i));
}

function noisy(samples: Float32Array, below: number, seed: number): Float32Array {
  const chance = chanceOf(seed, 5);
  const noise = samples.map(() => chance() + chance() + chance() - 1.5);
  return mixed(samples, (i) => noise[i]!, power(noise), below);
}

/** The band that leaks in, as a MIDI file. */
function bandFile(tempo: number): Uint8Array {
  const chart = `{title: Leak}\n{tempo: ${tempo}}\n| Fm7 | Bb7 | Ebmaj7 | Abmaj7 |`;
  return Buffer.from(answerBand(bandRequest.parse({ chart, rounds: 3, feel: 'swing' })).base64, 'base64');
}

/** What the band that leaks in sounds: a player who plays to Corvel has it told to the listener. */
export function bandSounds(tempo: number): KnownSound[] {
  const { header, tracks } = parseMidi(bandFile(tempo));
  const perTick = 60 / tempo / header.ticksPerBeat!;
  return tracks.flatMap((track) => {
    let tick = 0;
    return track.flatMap((event): KnownSound[] => {
      tick += event.deltaTime;
      if (event.type !== 'noteOn' || event.velocity === 0) return [];
      return [{ at: tick * perTick, midi: event.channel === DRUMS ? null : event.noteNumber }];
    });
  });
}
/** The channel of drums, from 0. */
const DRUMS = 9;

export function withBand(dir: string, samples: Float32Array, tempo: number, below: number): Float32Array {
  const band = rendered(dir, `band-${tempo}`, bandFile(tempo));
  return mixed(samples, (i) => band[i % band.length]!, power(band), below);
}

/** The specimens of a kind; the sound is made in `dir` where it is not there yet. */
export function specimens(dir: string, kind: Kind, tempos: readonly number[] = TEMPOS): Specimen[] {
  mkdirSync(dir, { recursive: true });
  return tempos.flatMap((tempo) =>
    SUBDIVISIONS.map((subdivision, s): Specimen => {
      const seed = 1000 * kind.program + 4 * tempo + s;
      const notes = walk(tempo, subdivision, seed);
      const name = `${kind.name}-${tempo}-${subdivision}`;
      const dry = rendered(
        dir,
        kind.ring || !(kind.noise || kind.band) ? name : `clean-${tempo}-${subdivision}`,
        midiOf(notes, kind.program, kind.ring, seed)
      );
      const noised = kind.noise ? noisy(dry, kind.noise, seed) : dry;
      const samples = kind.band ? withBand(dir, noised, tempo, kind.band) : noised;
      return { kind: kind.name, name, samples, rate: RATE, notes };
    })
  );
}
