/** Jobs of what is printed in several keys: the practice book, the worksheet with its answers. */
import { describe, expect, it } from 'vitest';
import { setViewport } from '../../scripts/lib/browser.mjs';
import type { Tools } from './neck';
import { AT_FIVE } from '../plan';

const TUNE = `{title: Bound in Twelve}
{key: Cm}
{tempo: 96}
| Cm7 | Fm7 Bb7 | Ebmaj7 | Abmaj7 |
| Dm7b5 | G7b9 | Cm6 | Dm7b5 G7b9 |`;
const PATIENCE = 60_000;

export function bookJobs(tools: () => Tools): void {
  const page = () => tools().page;
  const browser = () => tools().browser;

  async function newChart(source = TUNE): Promise<string> {
    // A target on the highest string has its ring above it.
    const decisions = [{ change: 0, pins: [{ beat: 1, string: 1, fret: 8 }] }];
    const plan = { ...AT_FIVE, decisions };
    const { body } = await tools().server.call<{ id: string }>('POST', 'songbook', { source, plan });
    return body.id;
  }
  const count = async (css: string) => (await page().all(css)).length;
  const isMade = (pages: number) =>
    page().until(
      async () => (await page().texts('[role="status"]')).join().includes(`${pages} pages on`),
      `${pages} pages`,
      PATIENCE
    );
  const query = async () => new URL(await browser().getCurrentUrl()).searchParams;

  /** Every page as it is printed: its number, kind and text; how many sheets that makes, and how large they are in points. */
  async function printed() {
    await browser().executeScript(`window.dispatchEvent(new Event('beforeprint'))`);
    await page().devTools('Emulation.setEmulatedMedia', { media: 'print' });
    const pages = await browser().executeScript<{ number: string; kind: string; text: string }[]>(
      `return [...document.querySelectorAll('[data-page]')].map((one) =>
         ({ number: one.dataset.page, kind: one.dataset.pageKind, text: one.innerText }))`
    );
    const cut = await browser().executeScript<string[]>(
      `return [...document.querySelectorAll('[data-page], [data-piece]')].flatMap((one) => {
         const over = one.scrollHeight - one.clientHeight > 2 || one.scrollWidth - one.clientWidth > 2;
         return over ? [(one.dataset.piece ?? 'page') + ' ' + one.innerText.slice(0, 40)] : [];
       }).concat([...document.querySelectorAll('[data-piece="moments"] svg')].flatMap((neck) => {
         const { top, bottom } = neck.getBoundingClientRect();
         const isBeyond = [...neck.querySelectorAll('path, text')].some((drawn) => {
           const box = drawn.getBoundingClientRect();
           return box.height > 0 && (box.top < top || box.bottom > bottom);
         });
         return isBeyond ? ['the neck of ' + neck.parentElement.innerText.slice(0, 30)] : [];
       }))`
    );
    await page().devTools('Emulation.setEmulatedMedia', { media: '' });
    const pdf = await page().pdf();
    await browser().executeScript(`window.dispatchEvent(new Event('afterprint'))`);
    const [, wide, high] = /\/MediaBox \[0 0 ([\d.]+) ([\d.]+)\]/.exec(pdf)!;
    return {
      pages,
      cut,
      sheets: pdf.match(/\/Type \/Page\b/g)!.length,
      size: [Math.round(Number(wide)), Math.round(Number(high))]
    };
  }

  describe('a practice book', () => {
    it('has a cover, contents, and every key on an opening of its own, nothing cut', async () => {
      await page().open(`/charts/${await newChart()}`);
      await page().clickNamed('More');
      await (await page().find('a[href$="/book"]')).click();
      await isMade(27);
      // What is not seen is not drawn.
      expect(await count('[data-piece="moments"]')).toBeLessThan(12);
      const { pages, cut, sheets, size } = await printed();
      expect(cut).toEqual([]);
      expect([sheets, ...size]).toEqual([27, 595, 842]);
      expect(pages.map(({ number }) => Number(number))).toEqual(Array.from({ length: 27 }, (_, i) => i + 1));
      expect(pages.slice(0, 3).map(({ kind }) => kind)).toEqual(['cover', 'guide', 'contents']);
      expect(pages[0]!.text).toContain('Bound in Twelve');
      // Round in fourths, each on a left page, with its place in the contents.
      const names = 'C F B♭ E♭ G♯ C♯ F♯ B E A D G'.split(' ').map((name) => `${name} minor`);
      names.forEach((name, i) => {
        expect(pages[3 + 2 * i]!.text, name).toContain(name);
        expect(pages[2]!.text.replace(/\s+/g, ' ')).toMatch(new RegExp(`${name} .*?\\b${4 + 2 * i}\\b`));
      });
      // G sharp minor: its dominant and where that lands are spelled in sharps.
      expect(pages[11]!.text.replace(/\s+/g, '')).toContain('D♯7♭9');
      expect(pages[11]!.text).not.toMatch(/[A-G]♭ /);
    });

    it('takes chosen keys in a chosen order on chosen paper, which a reload and a link keep', async () => {
      const chart = await newChart();
      await page().open(`/charts/${chart}/book`);
      await isMade(27);
      for (const name of ['C minor', 'E minor', 'B minor']) await page().clickNamed(name);
      await isMade(21);
      await page().clickNamed('Letter');
      await page().pick('Order of the keys', 'easy');
      await isMade(21);
      const names = async () =>
        await page().attributes(
          '[aria-label="Keys, in their order"] button[aria-pressed="true"]',
          'aria-label'
        );
      const chosen = await names();
      expect(chosen.slice(0, 2)).toEqual(['A minor', 'D minor']);
      expect(chosen).toHaveLength(9);
      const { sheets, size } = await printed();
      expect([sheets, ...size]).toEqual([21, 612, 792]);
      await browser().navigate().refresh();
      await isMade(21);
      expect(await names()).toEqual(chosen);
      expect((await query()).get('paper')).toBe('letter');
    });

    it('takes an order of the player’s own, by keyboard', async () => {
      await page().open(`/charts/${await newChart()}/book?keys=0,5,10`);
      await isMade(9);
      await browser().executeScript(`document.querySelector('[data-key="10"] [aria-label^="Move"]').focus()`);
      // Taken, two places to the front, put down.
      await page().press(' ');
      await page().press('\uE012', '\uE012', ' ');
      await page().until(async () => (await query()).get('keys') === '10,0,5', 'the order');
      expect((await page().attributes('[data-select="Order of the keys"]', 'data-value'))[0]).toBe('own');
    });

    it('says how far it is with a long chart, stops, and goes on', async () => {
      const chords = ['Cmaj7', 'A7b9', 'Dm7', 'G7', 'Em7', 'Ebdim7', 'Dm7', 'Db7'];
      const bars = Array.from({ length: 500 }, (_, i) =>
        Array.from({ length: 4 }, (_, n) => chords[(5 * i + 3 * n + (i >> 3)) % 8]).join(' ')
      ).join(' | ');
      const chart = await newChart(`{title: Long}\n{key: C}\n| ${bars} |`);
      await page().open(`/charts/${chart}/book?keys=0`);
      await page().until(
        async () => (await page().texts('[role="status"]')).join().includes('pages on'),
        'the first key',
        PATIENCE
      );
      /** Presses a button, and Stop as soon as that is there. */
      const pressAndStop = (name: string) =>
        browser().executeAsyncScript<string>(
          `const [name, done] = arguments;
           const button = (text) => [...document.querySelectorAll('button')].find((one) => one.innerText.trim() === text);
           const observer = new MutationObserver(() => {
             if (!button('Stop')) return;
             observer.disconnect();
             const said = document.querySelector('[role="status"]').innerText;
             button('Stop').click();
             done(said);
           });
           observer.observe(document.body, { childList: true, subtree: true });
           button(name).click();`,
          name
        );
      const isStopped = () =>
        page().until(
          async () => /Stopped: \d+ of 12 keys ready/.test((await page().texts('[role="status"]')).join()),
          'it to stop'
        );
      expect(await pressAndStop('all twelve')).toMatch(/F major: key 1 of 11/);
      await isStopped();
      expect(await pressAndStop('Go on')).toMatch(/: key 1 of 1\d/);
      await isStopped();
    });

    it('fits kept lines into the opening, and no more of them than it has room for', async () => {
      const chart = await newChart();
      const note = (start: number, midi: number, string: number, fret: number) => ({
        start,
        length: 480,
        midi,
        note: ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B'][midi % 12],
        place: { string, fret }
      });
      const line = (name: string, bars: number) => ({
        id: crypto.randomUUID(),
        name,
        data: {
          notes: Array.from({ length: bars * 4 }, (_, i) => note(480 * i, 60 + (i % 3), 3, 5 + (i % 3))),
          over: []
        }
      });
      const { server } = tools();
      await server.call('POST', `songbook/${chart}/lines`, line('Short and kept', 2));
      await server.call('POST', `songbook/${chart}/lines`, line('Too much of it', 8 * 40));
      await page().open(`/charts/${chart}/book?keys=0,1`);
      await isMade(7);
      const { pages, cut } = await printed();
      expect(cut).toEqual([]);
      const text = pages.map((one) => one.text).join();
      expect(text.match(/Short and kept/g)).toHaveLength(2);
      expect(text).not.toContain('Too much of it');
    });

    it('is there on a phone, page by page', async () => {
      await page().open(`/charts/${await newChart()}/book?keys=0`);
      await isMade(5);
      try {
        await setViewport(browser(), 390, 844);
        await page().until(
          async () =>
            (await browser().executeScript<number>('return document.documentElement.scrollWidth')) <= 390,
          'nothing to stand out'
        );
        const width = await browser().executeScript<number>(
          `return document.querySelector('[data-page="2"]').getBoundingClientRect().width`
        );
        expect(width).toBeGreaterThan(300);
      } finally {
        await setViewport(browser(), 1280, 800);
      }
    });

    it('of a chart without chords says what to do', async () => {
      await page().open(`/charts/${await newChart('{title: Empty}\n')}/book`);
      expect((await page().texts('main')).join()).toContain('no chords yet');
    });
  });

  describe('a worksheet', () => {
    it('asks on blank tables and necks, and answers at its end', async () => {
      await page().open(`/charts/${await newChart()}/book?kind=worksheet`);
      await isMade(4);
      const { pages, cut, sheets } = await printed();
      expect(cut).toEqual([]);
      expect(sheets).toBe(4);
      const [asked, answered] = [pages.slice(0, 2), pages.slice(2)].map((part) =>
        part.map(({ text }) => text).join(' ')
      );
      expect(asked).toContain('Worksheet');
      // The second degree's chord, its tones and its scale.
      for (const answer of ['iiø7', 'D F A♭ C', 'land on']) {
        expect(answered).toContain(answer);
        if (answer !== 'land on') expect(asked).not.toContain(answer);
      }
      const notes = await browser().executeScript<number[]>(
        `window.dispatchEvent(new Event('beforeprint'));
         const found = [2, 4].map((n) => [...document.querySelectorAll('[data-page="' + n + '"] [data-piece="moments"] [data-notes]')].reduce((sum, e) => sum + Number(e.dataset.count), 0));
         window.dispatchEvent(new Event('afterprint')); return found`
      );
      expect(notes[0]).toBe(0);
      expect(notes[1]).toBeGreaterThan(50);
    });
  });
}
