/**
 * The set of expressive kinds: what a hand does to a pitch, and what stands between the guitar and the microphone. Each kind is rendered with
 * the sound font that the listener was tuned on, with another one, by the simulated player's string, and by a string model that the
 * listener never met, which is made here.
 */
import { chanceOf, type Chance } from '../../../src/lib/core/line/chance';
import { through, type Effect } from '../../../src/lib/core/takes/player/effects';
import { pitchAt, sounded } from '../../../src/lib/core/takes/player/string';
import { bandSounds, midiOf, RATE, rendered, withBand, type Font, type Specimen, type TrueNote } from './set';

export const SOURCES = ['own font', 'other font', 'player', 'unknown string'] as const;
export type Source = (typeof SOURCES)[number];

interface Kind {
  readonly name: string;
  readonly least: number;
  /** General MIDI program, from 0. */
  readonly program?: number;
  readonly ring?: number;
  /** What is done to a note of so many seconds, and to the one that may sound with it. */
  readonly touch?: (note: TrueNote, chance: Chance) => readonly TrueNote[];
  readonly effects?: readonly Effect[];
  /** The band leaks in, so many decibels below. */
  readonly band?: number;
}

const VIBRATO = { cents: 35, hertz: 5.5, after: 0.15 } as const;

export const EXPRESSIVE: readonly Kind[] = [
  {
    name: 'vibrato',
    least: 0.9,
    touch: (note, chance) =>
      note.seconds < 0.4
        ? [note]
        : [{ ...note, vibrato: { ...VIBRATO, cents: 20 + 30 * chance(), hertz: 4.5 + 2 * chance() } }]
  },
  {
    name: 'bends',
    least: 0.9,
    touch: (note, chance) => {
      const [does, by, slow, lets] = [chance(), chance(), chance(), chance()];
      if (does > 0.5 || note.seconds < 0.35) return [note];
      const from = note.midi - (by < 0.4 ? 1 : 2);
      const seconds = Math.min(0.1 + 0.2 * slow, note.seconds / 3);
      return [
        {
          ...note,
          bend: { from, seconds },
          ...(lets < 0.4 && note.seconds > 0.7
            ? { release: { to: from, after: note.seconds * 0.6, seconds: 0.12 } }
            : {})
        }
      ];
    }
  },
  {
    name: 'slides',
    least: 0.9,
    touch: (note, chance) => {
      const [does, by, way] = [chance(), chance(), chance()];
      if (does > 0.5 || note.seconds < 0.2) return [note];
      const from = note.midi + (way < 0.7 ? -1 : 1) * (1 + Math.floor(3 * by));
      return [{ ...note, bend: { from, seconds: 0.03 * Math.abs(note.midi - from) + 0.02 } }];
    }
  },
  { name: 'chorus and room', least: 0.9, effects: ['chorus', 'room'] },
  { name: 'delay', least: 0.9, effects: ['delay'] },
  { name: 'steel, let ring', least: 0.9, program: 25, ring: 1.2 },
  { name: 'nylon, let ring', least: 0.85, program: 24, ring: 1.2 },
  { name: 'band at -20 dB', least: 0.9, band: 20 },
  { name: 'band at -12 dB', least: 0.85, band: 12 },
  {
    name: 'double stops',
    least: 0.85,
    touch: (note, chance) => {
      const [does, by] = [chance(), chance()];
      return does > 0.4
        ? [note]
        : [{ ...note, midi: note.midi - [3, 4, 5, 8, 9][Math.floor(5 * by)]! }, note];
    }
  }
];

const TEMPOS = [72, 104, 140] as const;
/** Lengths of notes, in beats. */
const LENGTHS = [0.5, 0.5, 0.5, 1, 1, 1.5, 2] as const;
const BEATS = 24;
const SCALE = [0, 2, 3, 5, 7, 9, 10];

/** A line of longer and shorter notes, as it is sung on a guitar. */
function sung(tempo: number, seed: number, touch: NonNullable<Kind['touch']>): TrueNote[] {
  const chance = chanceOf(seed, tempo, 3);
  const low = 45 + Math.floor(chance() * 12);
  const pool = Array.from({ length: 24 }, (_, i) => low + i).filter((midi) => SCALE.includes(midi % 12));
  let at = Math.floor(pool.length / 2);
  const notes: TrueNote[] = [];
  for (let beat = 0; beat < BEATS;) {
    const length = LENGTHS[Math.floor(chance() * LENGTHS.length)]!;
    const step = [0, 1, 1, 1, -1, -1, -1, 2, -2, 4, -4][Math.floor(chance() * 11)]!;
    at = at + step < 0 || at + step >= pool.length ? at - step : at + step;
    if (chance() > 0.08) {
      const note = { at: 0.5 + (beat * 60) / tempo, seconds: (0.94 * length * 60) / tempo, midi: pool[at]! };
      notes.push(...touch(note, chance));
    }
    beat += length;
  }
  return notes;
}

/**
 * Strings as sums of partials that are a little sharp, each falling at its own pace, plucked somewhere, through a body that favours some
 * frequencies: nothing of it is the simulated player's string.
 */
function unknownString(notes: readonly TrueNote[], ring: number | undefined, seed: number): Float32Array {
  const last = Math.max(...notes.map(({ at, seconds }) => at + Math.max(seconds, ring ?? 0)));
  const out = new Float32Array(Math.ceil((last + 0.5) * RATE));
  const chance = chanceOf(seed, 41);
  for (const note of notes) {
    const loudness = 0.12 * (0.7 + 0.5 * chance());
    const pluck = 0.1 + 0.12 * chance();
    const seconds = ring === undefined ? note.seconds : ring;
    const [first, count] = [Math.round(note.at * RATE), Math.round((seconds + 0.03) * RATE)];
    const partials = Array.from({ length: 24 }, (_, i) => {
      const n = i + 1;
      const hertz = 440 * 2 ** ((note.midi - 69) / 12) * n;
      const body =
        1 + 1.2 * Math.exp(-(((hertz - 210) / 60) ** 2)) + 0.8 * Math.exp(-(((hertz - 640) / 150) ** 2));
      return {
        n: n * Math.sqrt(1 + 0.00012 * n * n),
        size: (Math.abs(Math.sin(Math.PI * n * pluck)) / n) * body,
        falls: 0.9 + hertz / 900,
        phase: 2 * Math.PI * chance()
      };
    }).filter(({ n }) => 440 * 2 ** ((note.midi - 69) / 12) * n < 9000);
    const phases = partials.map(({ phase }) => phase);
    for (let i = 0; i < count && first + i < out.length; i++) {
      const after = i / RATE;
      const hertz = 440 * 2 ** ((pitchAt({ ...note, loudness: 1 }, after) - 69) / 12);
      const edge = Math.min(1, after / 0.003) * Math.min(1, (count - i) / (0.03 * RATE));
      let sum = i < 200 ? 0.4 * (chance() - 0.5) * (1 - i / 200) : 0;
      partials.forEach(({ n, size, falls }, p) => {
        phases[p] = phases[p]! + (2 * Math.PI * hertz * n) / RATE;
        sum += size * Math.exp(-falls * after) * Math.sin(phases[p]!);
      });
      out[first + i]! += loudness * edge * sum;
    }
  }
  return out;
}

function dryOf(
  dir: string,
  source: Source,
  kind: Kind,
  notes: readonly TrueNote[],
  seed: number
): Float32Array {
  if (source === 'unknown string') return unknownString(notes, kind.ring, seed);
  if (source === 'player') {
    const strokes = notes.map((note) => ({
      ...note,
      loudness: 0.8,
      seconds: kind.ring ?? note.seconds
    }));
    return sounded(strokes, seed % 2 ? 'bright' : 'dark', RATE);
  }
  const font: Font = source === 'own font' ? 'own' : 'other';
  const programs = kind.program === undefined ? [27, 26, 25] : [kind.program];
  const program = programs[seed % programs.length]!;
  const name = `${kind.name}-${font}-${seed}`.replaceAll(/[ ,]+/g, '-');
  return rendered(dir, name, midiOf(notes, program, kind.ring, seed), font);
}

/** The specimens of a kind from a source. */
export function expressive(dir: string, kind: Kind, source: Source): Specimen[] {
  return TEMPOS.map((tempo, i) => {
    const seed = 100 * EXPRESSIVE.indexOf(kind) + 10 * SOURCES.indexOf(source) + i;
    const notes = sung(tempo, seed, kind.touch ?? ((note) => [note]));
    const dry = dryOf(dir, source, kind, notes, seed);
    const wet = (kind.effects ?? []).reduce<Float32Array>(
      (sound, effect) => through(effect, sound, RATE),
      dry
    );
    const samples = kind.band === undefined ? wet : withBand(dir, wet, tempo, kind.band);
    return {
      kind: kind.name,
      name: `${kind.name}-${source}-${tempo}`,
      samples,
      rate: RATE,
      notes,
      ...(kind.band === undefined ? {} : { known: bandSounds(tempo) })
    };
  });
}
