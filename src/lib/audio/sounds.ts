/**
 * The sampled sounds of the band: for each instrument a sheet of notes, one after another (`sounds.json`), rendered when the
 * program was built. They are fetched and decoded once, before anything plays.
 */
import { sure } from '$lib/core/base/list';
import table from './sounds.json';

const FILES = import.meta.glob<string>('/generated/sounds/*.{ogg,txt}', {
  query: '?url',
  import: 'default',
  eager: true
});

/** Where the notices of those who made the sounds are to be read; they go along with them. */
export const NOTICES = FILES['/generated/sounds/notices.txt'];

export type SheetName = keyof typeof table.sheets;

/** The notes of an instrument by their MIDI numbers. */
export type Sheet = ReadonlyMap<number, AudioBuffer>;

export interface Sounds {
  readonly sheets: Readonly<Record<SheetName, Sheet>>;
  /** They could not be loaded; plain ones made in the program stand in for them. */
  readonly arePlain: boolean;
}

interface SheetFacts {
  readonly notes: readonly number[];
  readonly seconds: number;
  readonly longer?: Readonly<Record<string, number>>;
  readonly isKit?: boolean;
}

const SHEETS = Object.entries(table.sheets) as [SheetName, SheetFacts][];
const { rate } = table;

let loading: Promise<Sounds> | undefined;

/** The sounds; asked for again where they could not be loaded before. */
export function loadSounds(): Promise<Sounds> {
  loading ??= sampled().catch(() => {
    loading = undefined;
    return plain();
  });
  return loading;
}

async function sampled(): Promise<Sounds> {
  // Decoding needs no gesture of the player, only some context.
  const decoder = new OfflineAudioContext(1, 1, rate);
  const sheets = await Promise.all(
    SHEETS.map(async ([name, facts]) => {
      const response = await fetch(sure(FILES[`/generated/sounds/${name}.ogg`], 'FILES'));
      if (!response.ok) throw new Error(`The sound of the ${name} could not be loaded.`);
      return [name, cut(await decoder.decodeAudioData(await response.arrayBuffer()), facts)] as const;
    })
  );
  return { sheets: Object.fromEntries(sheets) as Sounds['sheets'], arePlain: false };
}

const secondsOf = ({ seconds, longer }: SheetFacts, note: number) => longer?.[note] ?? seconds;

function cut(sheet: AudioBuffer, facts: SheetFacts): Sheet {
  const samples = sheet.getChannelData(0);
  let at = 0;
  return new Map(
    facts.notes.map((note) => {
      const length = Math.round(secondsOf(facts, note) * sheet.sampleRate);
      const own = samples.subarray(at, at + length);
      at += length;
      return [note, bufferOf(own, sheet.sampleRate)];
    })
  );
}

function bufferOf(samples: Float32Array, sampleRate: number): AudioBuffer {
  const buffer = new AudioBuffer({ length: Math.max(1, samples.length), sampleRate });
  buffer.getChannelData(0).set(samples);
  return buffer;
}

/** Overtones of the plain tone, how fast it dies away, and how loud it is. */
const OVERTONES = [1, 0.5, 0.25, 0.12];
const DYING = 2.2;
const STRENGTH = 0.25;

function plain(): Sounds {
  const sheets = SHEETS.map(([name, facts]): readonly [SheetName, Sheet] => {
    const notes = facts.notes.map((note) => {
      const length = Math.round(secondsOf(facts, note) * rate);
      const sound = facts.isKit ? strike : tone;
      return [
        note,
        bufferOf(
          Float32Array.from({ length }, (_, i) => sound(note, i / rate)),
          rate
        )
      ] as const;
    });
    return [name, new Map(notes)];
  });
  return { sheets: Object.fromEntries(sheets) as Record<SheetName, Sheet>, arePlain: true };
}

function tone(note: number, second: number): number {
  const turn = 2 * Math.PI * 440 * 2 ** ((note - 69) / 12) * second;
  const sum = OVERTONES.reduce((all, share, i) => all + share * Math.sin(turn * (i + 1)), 0);
  return STRENGTH * sum * Math.exp(-DYING * second) * Math.min(1, second * 400);
}

/** General MIDI's kick drum; the other drums are noise here, the higher ones shorter. */
const KICK = 36;
function strike(note: number, second: number): number {
  if (note === KICK)
    return 0.8 * Math.sin(2 * Math.PI * (50 + 60 * Math.exp(-30 * second)) * second) * Math.exp(-9 * second);
  const noise = (((Math.sin((note * 7919 + second * rate) * 12.9898) * 43758.5453) % 1) + 1) % 1;
  return 0.35 * (2 * noise - 1) * Math.exp(-(note > 40 ? 30 : 14) * second);
}
