/** Figures of the band as it is heard: how loud each part is, how long a sound file takes, what comes late on a slow machine. */
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { WebDriver } from 'selenium-webdriver';
import { openBrowser } from '../lib/browser.mjs';
import { FEELS } from '../../src/lib/core/practice/feel';
import { Server } from '../../tests/server';

const PARTS = ['Bass', 'Chords', 'Drums', 'Drill', 'Click'] as const;
const CADENCE = '| Fm7 | Bb7 | Ebmaj7 | C7 ';

interface Measured {
  /** Loudness units under full scale, gated, K-weighted as broadcasters measure. */
  readonly loudness: number;
  readonly peak: number;
  readonly seconds: number;
}

export interface SoundFigures {
  readonly feels: readonly {
    readonly feel: string;
    readonly parts: Readonly<Record<string, number>>;
    readonly peak: number;
  }[];
  /** Milliseconds for a sound file of so many bars, and the seconds it plays. */
  readonly files: readonly { readonly bars: number; readonly made: number; readonly seconds: number }[];
  /** Events that came late over so many beats, the processor slowed fourfold. */
  readonly late: { readonly events: number; readonly beats: number };
}

/** Runs in the page: the last sound file, measured. */
const MEASURE = `const done = arguments[0]; (async () => {
  const buffer = await window.files.at(-1).arrayBuffer();
  const rate = new DataView(buffer).getUint32(24, true);
  const data = new Int16Array(buffer, 44);
  const context = new OfflineAudioContext(1, data.length, rate);
  const sound = context.createBuffer(1, data.length, rate);
  const samples = sound.getChannelData(0);
  let peak = 0;
  data.forEach((value, i) => { samples[i] = value / 32768; peak = Math.max(peak, Math.abs(samples[i])); });
  const source = context.createBufferSource();
  source.buffer = sound;
  const shelf = new BiquadFilterNode(context, { type: 'highshelf', frequency: 1682, gain: 4 });
  const low = new BiquadFilterNode(context, { type: 'highpass', frequency: 38, Q: 0.5 });
  source.connect(shelf).connect(low).connect(context.destination);
  source.start();
  const weighted = (await context.startRendering()).getChannelData(0);
  const [step, size] = [rate / 10, (rate * 4) / 10].map(Math.floor);
  const blocks = [];
  for (let at = 0; at + size <= weighted.length; at += step) {
    let sum = 0;
    for (let i = at; i < at + size; i++) sum += weighted[i] ** 2;
    blocks.push(sum / size);
  }
  const level = (power) => -0.691 + 10 * Math.log10(power);
  const mean = (powers) => powers.reduce((a, b) => a + b, 0) / Math.max(1, powers.length);
  const heard = blocks.filter((power) => level(power) > -70);
  const gate = level(mean(heard)) - 10;
  done({ loudness: level(mean(heard.filter((power) => level(power) > gate))), peak, seconds: data.length / rate });
})();`;

class Stand {
  constructor(
    readonly browser: WebDriver,
    readonly server: Server
  ) {}

  async open(source: string, desk: object): Promise<void> {
    const { browser, server } = this;
    const { body } = await server.call<{ id: string }>('POST', 'songbook', { source });
    await browser.get(`${server.url}/charts/${body.id}`);
    await browser.executeScript(`localStorage.setItem('corvel-desk', arguments[0])`, JSON.stringify(desk));
    await browser.get(`${server.url}/charts/${body.id}?view=rehearse`);
    await this.until(() =>
      browser.executeScript(`return document.querySelector('[data-sounds="here"]') !== null`)
    );
    await browser.executeScript(
      `window.files = []; const before = URL.createObjectURL.bind(URL);
       URL.createObjectURL = (file) => file.type.startsWith('audio') ? (window.files.push(file), '#') : before(file);`
    );
  }

  async until(isTrue: () => Promise<unknown>): Promise<void> {
    await this.browser.wait(isTrue, 120_000);
  }

  /** Makes a sound file and measures it; how long the making took, in milliseconds. */
  async file(): Promise<Measured & { made: number }> {
    const { browser } = this;
    const count = () => browser.executeScript<number>('return window.files.length');
    const before = await count();
    const begun = performance.now();
    await browser.executeScript(
      `[...document.querySelectorAll('button')].find((one) => one.textContent.trim() === 'WAV').click()`
    );
    await this.until(async () => (await count()) > before);
    const made = performance.now() - begun;
    return { ...(await browser.executeAsyncScript<Measured>(MEASURE)), made };
  }
}

const mixOf = (only: string | null) =>
  Object.fromEntries(
    PARTS.map((part) => {
      const id = part === 'Drill' ? 'line' : part.toLowerCase();
      const isMuted = only === null ? part === 'Click' : part !== only;
      return [id, { decibels: part === 'Click' ? -6 : 0, isMuted }];
    })
  );

export async function soundFigures(): Promise<SoundFigures> {
  const server = new Server(join(mkdtempSync(join(tmpdir(), 'corvel-bench-')), 'sound.db'));
  await server.start();
  const browser = await openBrowser();
  const stand = new Stand(browser, server);
  try {
    const feels = [];
    const plain = FEELS.filter(({ kit }) => kit !== 'none').map(({ id }) => [id, 0.5] as const);
    const others = [0.1, 0.9].flatMap((intensity) => ['swing', 'rock'].map((id) => [id, intensity] as const));
    for (const [feel, intensity] of [...plain, ...others]) {
      const source = `{key: Eb}\n{tempo: 120}\n{meta: feel ${feel}}\n${CADENCE.repeat(2)}|`;
      const parts: Record<string, number> = {};
      for (const part of PARTS.filter((one) => one !== 'Click')) {
        await stand.open(source, { drill: 'up', intensity, mix: mixOf(part) });
        parts[part] = (await stand.file()).loudness;
      }
      await stand.open(source, { drill: 'up', intensity, mix: mixOf(null) });
      feels.push({ feel: `${feel} at ${intensity}`, parts, peak: (await stand.file()).peak });
    }
    const files = [];
    for (const bars of [8, 32, 64]) {
      await stand.open(`{tempo: 120}\n${CADENCE.repeat(bars / 4)}|`, { drill: 'up' });
      await stand.file();
      const { made, seconds } = await stand.file();
      files.push({ bars, made, seconds });
    }
    return { feels, files, late: await lateEvents(stand) };
  } finally {
    await browser.quit();
    await server.stop();
  }
}

const BEATS = 200;

async function lateEvents(stand: Stand): Promise<SoundFigures['late']> {
  const { browser } = stand;
  await stand.open(`{tempo: 240}\n${CADENCE.repeat(4)}|`, { drill: 'up', countsIn: false });
  const devTools = browser as unknown as {
    sendDevToolsCommand(name: string, options: object): Promise<void>;
  };
  await devTools.sendDevToolsCommand('Emulation.setCPUThrottlingRate', { rate: 4 });
  await browser.actions().sendKeys(' ').perform();
  await browser.sleep((BEATS * 60_000) / 240 + 3000);
  const events = Number(
    await browser.executeScript<string>(`return document.querySelector('[data-late]').dataset.late`)
  );
  await devTools.sendDevToolsCommand('Emulation.setCPUThrottlingRate', { rate: 1 });
  return { events, beats: BEATS };
}
