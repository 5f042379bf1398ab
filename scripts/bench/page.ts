/** What a real page costs: processor time of its own thread, nodes, first pictures, bytes sent. */
import { mkdtempSync, readFileSync, readdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { Key } from 'selenium-webdriver';
import { Page } from '../../tests/page';
import { Server } from '../../tests/server';
import { openBrowser } from '../lib/browser.mjs';
import { CYCLE, chart } from './charts';

export interface PageCost {
  readonly changes: number;
  readonly sent: number;
  /** Nodes of the page and milliseconds from the key to the first picture, view by view. */
  readonly views: readonly { readonly view: string; readonly nodes: number; readonly opened: number }[];
  /** What looking on takes of the page's processor time where nothing is done, in milliseconds. */
  readonly watching: number;
  /** Processor time on the page for one thing done, in milliseconds; looking on is taken off. */
  readonly actions: readonly { readonly action: string; readonly cost: number }[];
}

/** Keys that open the views one after another, and what is to be seen then. */
const VIEWS_OPENED = [
  ['map', 'm', '[aria-label="Position map"] svg'],
  ['grips', 'g', '[aria-label="Grips"] svg'],
  ['lines', 'i', 'main [role="status"], [data-line]'],
  ['takes', 'd', 'main [data-empty]'],
  ['rehearse', 'p', '[data-lag]'],
  ['moment', 's', '[aria-label="Threads"] svg'],
  ['table', 'b', '[role="dialog"] table']
] as const;

const LENGTHS = [64, 512, 2000];
const WATCHING = 'looking on';

/** What charts of three lengths cost on a real page: processor time of the page's own thread, least of eighteen. */
export async function pageCosts(): Promise<PageCost[]> {
  const server = new Server(join(mkdtempSync(join(tmpdir(), 'corvel-bench-')), 'pages.db'));
  await server.start();
  const browser = await openBrowser();
  const page = new Page(browser, () => server.url);
  const spent = async () => {
    const { metrics } = await page.devTools<{ metrics: { name: string; value: number }[] }>(
      'Performance.getMetrics'
    );
    return 1000 * metrics.find(({ name }) => name === 'ThreadTime')!.value;
  };
  const drawn = () =>
    browser.executeAsyncScript(
      'const done = arguments[0]; requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(done)));'
    );
  /** Six to warm up, then the least of nine: what else runs on the machine is not the page's. */
  const least = async (work: (i: number) => Promise<void>, prepare?: () => Promise<void>) => {
    const times: number[] = [];
    for (let i = 0; i < 15; i++) {
      await prepare?.();
      const before = await spent();
      await work(i);
      await drawn();
      await browser.sleep(60);
      times.push((await spent()) - before);
    }
    return Math.min(...times.slice(6));
  };
  const opened = (key: string, picture: string) =>
    browser.executeAsyncScript<number>(
      `const [key, picture, done] = arguments;
       const start = performance.now();
       const look = () => {
         if (!document.querySelector(picture)) requestAnimationFrame(look);
         // It is there as this frame begins, and painted when a timer runs.
         else setTimeout(() => done(performance.now() - start));
       };
       document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
       requestAnimationFrame(look);`,
      key,
      picture
    );
  const nodes = () => browser.executeScript<number>('return document.querySelectorAll("*").length');
  const measured = async (changes: number): Promise<PageCost> => {
    const { body } = await server.call<{ id: string }>('POST', 'songbook', { source: chart(changes) });
    const path = `/charts/${body.id}`;
    const sent = gzipSync(await (await fetch(server.url + path)).text()).length;
    await page.open(path);
    // Until the page has settled and fetched its views ahead.
    await browser.sleep(changes > 600 ? 8000 : 6000);
    const views = [];
    for (const [view, key, picture] of VIEWS_OPENED) {
      const time = await opened(key, picture);
      await browser.sleep(1200);
      views.push({ view, opened: time, nodes: await nodes() });
    }
    await page.press(Key.ESCAPE);
    await browser.sleep(600);
    const costs = new Map<string, number>();
    const measure = async (action: string, ...how: Parameters<typeof least>) =>
      costs.set(action, Math.min(costs.get(action) ?? Infinity, await least(...how)));
    // Twice, some way apart: a machine that is shared is busy for seconds.
    for (let pass = 0; pass < 2; pass++) {
      // Two frames are asked for and the time is read, whatever is done.
      await measure(WATCHING, () => Promise.resolve());
      // Steps come one upon another, as of a player who looks for a place; after a rest what stands beside follows at once too.
      const rest = () => browser.sleep(500);
      await measure('a key that does nothing', () => page.press(Key.F9));
      await measure('next change', () => page.press(Key.ARROW_RIGHT));
      await measure('next change, after a rest', () => page.press(Key.ARROW_RIGHT), rest);
      await measure('hand one fret further', (i) => page.press(i % 2 ? Key.ARROW_UP : Key.ARROW_DOWN));
      await measure(
        'hand one fret further, after a rest',
        (i) => page.press(i % 2 ? Key.ARROW_UP : Key.ARROW_DOWN),
        rest
      );
      await measure('another target', (i) => page.press(i % 2 ? '3' : '7'));
      await measure(
        'a choice taken',
        () => page.press(Key.ENTER),
        async () => {
          await page.press('c');
          await page.press(Key.ARROW_DOWN);
          await browser.sleep(60);
        }
      );
    }
    await page.press('e');
    await (await page.find('[data-editor] .cm-content')).click();
    await page.chord(Key.CONTROL, Key.END);
    for (let pass = 0; pass < 2; pass++) await measure('a typed character', () => page.press('x'));
    await (await page.find('[data-bar-field]')).click();
    await measure('a character on the bars', (i) => page.press(i % 2 ? Key.BACK_SPACE : 'm'));
    const watching = costs.get(WATCHING)!;
    costs.delete(WATCHING);
    const actions = [...costs].map(([action, cost]) => ({ action, cost: Math.max(0, cost - watching) }));
    return { changes, sent, views, watching, actions };
  };
  try {
    await page.devTools('Performance.enable', { timeDomain: 'threadTicks' });
    const costs = [];
    for (const changes of LENGTHS) costs.push(await measured(changes));
    return costs;
  } finally {
    await browser.quit();
    await server.stop();
  }
}

/** Milliseconds until a practice book in twelve keys is there to be printed: its keys made, then every page drawn. */
export async function bookTimes(): Promise<{ made: number; drawn: number; pages: number }> {
  const server = new Server(join(mkdtempSync(join(tmpdir(), 'corvel-bench-')), 'book.db'));
  await server.start();
  const browser = await openBrowser();
  try {
    const bars = Array.from({ length: 32 }, (_, i) => CYCLE[i % CYCLE.length]).join(' | ');
    const source = `{title: Measured}\n{key: Eb}\n| ${bars} |`;
    const { body } = await server.call<{ id: string }>('POST', 'songbook', { source });
    await browser.get(`${server.url}/charts/${body.id}/book?keys=0`);
    await browser.sleep(1500);
    return await browser.executeAsyncScript(
      `const done = arguments[0]; const begun = performance.now();
       [...document.querySelectorAll('button')].find((one) => one.innerText.trim() === 'all twelve').click();
       const look = setInterval(() => {
         if (!document.querySelector('[role="status"]').innerText.includes(' pages on')) return;
         clearInterval(look);
         const made = performance.now() - begun;
         window.dispatchEvent(new Event('beforeprint'));
         document.body.getBoundingClientRect();
         done({ made, drawn: performance.now() - begun - made, pages: document.querySelectorAll('[data-page]').length });
       }, 10);`
    );
  } finally {
    await browser.quit();
    await server.stop();
  }
}

/** Seconds between the audio clock's reaching a change and its being on the screen: a real page, a change at every beat. */
export async function highlightLag(): Promise<{ count: number; median: number }> {
  const server = new Server(join(mkdtempSync(join(tmpdir(), 'corvel-bench-')), 'stand.db'));
  await server.start();
  const browser = await openBrowser();
  try {
    const source = '{tempo: 300}\n| Cm7 F7 Bbmaj7 Gm7 | Ebmaj7 Am7b5 D7 Gm6 |';
    const { body } = await server.call<{ id: string }>('POST', 'songbook', { source });
    await browser.get(`${server.url}/charts/${body.id}`);
    await browser.sleep(1000);
    await browser.actions().sendKeys('p').perform();
    await browser.sleep(1000);
    await browser.actions().sendKeys(' ').perform();
    const read = async () =>
      JSON.parse(
        await browser.executeScript<string>('return document.querySelector("[data-lag]").dataset.lag')
      ) as { count: number; median: number };
    for (let tries = 0; tries < 60 && (await read()).count < 100; tries++) await browser.sleep(1000);
    return await read();
  } finally {
    await browser.quit();
    await server.stop();
  }
}

/** Bytes of compressed script that the page of a chart asks for before anything is opened. */
export async function firstLoad(): Promise<number> {
  const client = join(import.meta.dirname, '../../build/client/_app/immutable');
  const source = (path: string) => readFileSync(join(client, path), 'utf8');
  const node = (n: number) =>
    readdirSync(join(client, 'nodes')).find((name) => name.startsWith(`${n}.`) && name.endsWith('.js'))!;
  const entries = readdirSync(join(client, 'entry'))
    .filter((name) => name.endsWith('.js'))
    .map((name) => `entry/${name}`);
  const waiting = [...entries, ...[0, 3].map((n) => `nodes/${node(n)}`)];
  const seen = new Set<string>();
  while (waiting.length) {
    const path = waiting.pop()!;
    if (seen.has(path)) continue;
    seen.add(path);
    // Static imports only: what is imported dynamically arrives when it is used.
    for (const [, , file] of source(path).matchAll(
      /(?:from|import)\s*(["'`])\.{1,2}\/((?:chunks|nodes|entry)\/[^"'`]+|[^"'`/]+)\1/g
    )) {
      waiting.push(file!.includes('/') ? file! : `${path.split('/')[0]}/${file}`);
    }
  }
  return [...seen].reduce((sum, path) => sum + gzipSync(source(path)).length, 0);
}
