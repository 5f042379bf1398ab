/** Jobs in which nothing typed may be lost: server away, reload, deleted elsewhere, two windows, killed while saving. */
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { DEFAULT_PLAN } from '../../src/lib/core/plan/model';
import type { ChartList } from '../../src/lib/api/songbook';
import { DEFAULT_SETTINGS } from '../../src/lib/api/default-settings';
import type { Tools } from './neck';
import { AT_FIVE } from '../plan';

const TUNE = '{title: Kept}\n{key: Ab}\n| Bbm7 | Eb7 | Abmaj7 | F7b9 |';

export function keepingJobs(tools: () => Tools): void {
  const page = () => tools().page;
  const browser = () => tools().browser;
  const server = () => tools().server;

  async function newChart(source = TUNE): Promise<string> {
    const { body } = await server().call<{ id: string }>('POST', 'songbook', { source, plan: AT_FIVE });
    return body.id;
  }
  const stored = async (id: string) =>
    (await server().call<{ source: string; version: number }>('GET', `songbook/${id}`)).body;
  const state = async () => (await page().attributes('[data-save-state]', 'data-save-state'))[0];
  const stateIs = (wanted: string) => page().until(async () => (await state()) === wanted, `“${wanted}”`);

  /** Types at the end of the chart's text. */
  async function type(text: string): Promise<void> {
    if ((await page().all('[data-editor]')).length === 0) await page().press('e');
    await (await page().find('[data-editor] .cm-content')).click();
    await page().chord(Key.CONTROL, Key.END);
    await page().press(text);
  }
  const isTyped = (text: string) =>
    page().until(
      async () => (await page().texts('[data-editor] .cm-content')).some((all) => all.includes(text)),
      `“${text}” in the editor`
    );

  /** In a window of its own, then back. */
  async function inAnotherWindow(work: () => Promise<void>): Promise<void> {
    const first = await browser().getWindowHandle();
    await browser().switchTo().newWindow('tab');
    await work();
    await browser().close();
    await browser().switchTo().window(first);
  }

  describe('a large songbook', () => {
    const titles = () => page().texts('[data-charts] a');
    const shows = (wanted: readonly string[]) =>
      page().until(async () => (await titles()).join() === wanted.join(), wanted.join());
    async function fill(): Promise<void> {
      for (const [title, more] of [
        ['Halyard One', '{key: Dbm}\n{feel: samba}\n{tags: regatta}'],
        ['Halyard Two', '{key: Dbm}\n{feel: samba}'],
        ['Halyard Three', '{key: F#}\n{feel: samba}']
      ] as const)
        await newChart(`{title: ${title}}\n${more}\n| Dbm7 | F#7 |`);
    }

    it('is narrowed down by what the charts are, which Back and a link keep', async () => {
      await fill();
      await page().open('/?sort=title');
      await page().clickNamed('Filter');
      await page().pick('Style', 'samba');
      await shows(['Halyard One', 'Halyard Three', 'Halyard Two']);
      await page().pick('Key', 'Dbm');
      await shows(['Halyard One', 'Halyard Two']);
      await page().pick('Tag', 'regatta');
      await shows(['Halyard One']);
      expect(await browser().getCurrentUrl()).toContain('tag=regatta');
      await (await page().find('[data-charts] a')).click();
      await page().find('[data-view="moment"]');
      await browser().navigate().back();
      await shows(['Halyard One']);
      await page().clickNamed('show all');
      await page().until(async () => (await titles()).length > 3, 'all of them');
    });

    it('has many charts selected at once: tagged, untagged and deleted, each with undo', async () => {
      await page().open('/?style=samba&sort=title');
      await shows(['Halyard One', 'Halyard Three', 'Halyard Two']);
      await page().clickNamed('Select');
      const boxes = await page().all('[aria-label^="Select Halyard"]');
      await boxes[0]!.click();
      // All between two presses.
      await browser().actions().keyDown(Key.SHIFT).click(boxes[2]!).keyUp(Key.SHIFT).perform();
      await page().find('[data-selected="3"]');
      await (await page().find('input[aria-label="Tag"]')).sendKeys('night watch', Key.ENTER);
      const tags = async () =>
        (await server().call<ChartList>('GET', 'songbook?style=samba&sort=title')).body.charts.map((chart) =>
          chart.tags.join()
        );
      await page().until(
        async () => (await tags()).join('; ') === 'regatta,night watch; night watch; night watch',
        'the tags'
      );
      await page().clickNamed('Undo');
      await page().until(async () => (await tags()).join('; ') === 'regatta; ; ', 'the tags to go');
      await page().clickNamed('Delete 3 charts');
      await shows([]);
      await page().until(async () =>
        (await page().texts('[data-sonner-toast]')).join().includes('3 charts were deleted')
      );
      await page().clickNamed('Undo');
      await shows(['Halyard One', 'Halyard Three', 'Halyard Two']);
    });

    it('selects all that are found, beyond those that are shown', async () => {
      await page().open('/');
      await page().clickNamed('Select');
      const { body } = await server().call<ChartList>('GET', 'songbook?limit=1');
      await page().clickNamed(`all ${body.total} found`);
      await page().find(`[data-selected="${body.total}"]`);
      await page().clickNamed('done');
    });
  });

  describe('everything as one file', () => {
    it('is saved, looked into, and brings back what is missing, with a way back from there', async () => {
      const titles = async () =>
        (await server().call<ChartList>('GET', 'songbook?limit=200')).body.charts
          .map(({ title }) => title)
          .sort();
      const gone = await newChart('{title: Gone overboard}\n| Gb | Db |');
      const response = await fetch(`${server().url}/api/v1/archive`);
      expect(response.headers.get('content-type')).toBe('application/zip');
      const path = join(mkdtempSync(join(tmpdir(), 'corvel-archive-job-')), 'everything.zip');
      writeFileSync(path, Buffer.from(await response.arrayBuffer()));
      await server().call('DELETE', `songbook/${gone}`);
      const was = await titles();
      await page().open('/');
      await page().clickNamed('More');
      await page().clickNamed('Backups');
      const link = await page().find('[data-archive] a[download]');
      expect(await link.getAttribute('href')).toMatch(/\/api\/v1\/archive\?sounds=yes$/);
      await (await page().find('[aria-label="An archive of Corvel"]')).sendKeys(path);
      await page().until(
        async () => (await page().texts('[data-archived="charts"] td'))[0] === '1',
        'the chart that is not here'
      );
      expect(await titles()).toEqual(was);
      await page().clickNamed('Import');
      await page().until(async () => (await titles()).includes('Gone overboard'), 'the chart');
      await page().clickNamed('Undo');
      await page().until(async () => (await titles()).join() === was.join(), 'what was there before');
    });

    it('says what is wrong with a file that is none', async () => {
      const path = join(mkdtempSync(join(tmpdir(), 'corvel-archive-job-')), 'holiday.zip');
      writeFileSync(path, 'not a zip');
      await page().open('/');
      await page().clickNamed('More');
      await page().clickNamed('Backups');
      await (await page().find('[aria-label="An archive of Corvel"]')).sendKeys(path);
      await page().find('[data-archive] [role="alert"]');
      expect((await page().texts('[data-archive] [role="alert"]')).join()).toContain(
        'not an archive of Corvel'
      );
    });
  });

  describe('copies of the songbook', () => {
    it('are made and brought back from within, with a way back from there', async () => {
      const titles = async () =>
        (await server().call<ChartList>('GET', 'songbook?limit=200')).body.charts
          .map(({ title }) => title)
          .sort();
      await newChart('{title: Before the copy}\n| Gb | Db |');
      await page().open('/');
      await page().clickNamed('More');
      await page().clickNamed('Backups');
      await page().clickNamed('Back up now');
      await page().until(async () => (await page().all('[data-copy*="by hand"]')).length === 1, 'the copy');
      const was = await titles();
      await newChart('{title: After the copy}\n| Cb | Gb |');
      const since = await titles();
      await (await page().find('[data-copy*="by hand"] button')).click();
      await page().clickNamed('Restore it');
      await page().until(async () => (await page().all('[data-copies]')).length === 0, 'the dialog to close');
      expect(await titles()).toEqual(was);
      expect((await page().texts('[data-charts]')).join()).not.toContain('After the copy');
      await (await page().find('[data-sonner-toast] [data-button]')).click();
      await page().until(async () => (await titles()).includes('After the copy'), 'what was there since');
      expect(await titles()).toEqual(since);
    });
  });

  describe('what is typed', () => {
    it('while the server is away survives a reload, and is saved when it is back', async () => {
      const id = await newChart();
      await page().open(`/charts/${id}`);
      await type('');
      await server().stop();
      await type('| Dbm6 |');
      await stateIs('offline');
      // The page goes without a question: what was typed is on the device.
      await browser().get('about:blank');
      await server().start();
      expect((await stored(id)).source).not.toContain('Dbm6');
      await page().open(`/charts/${id}`);
      await page().until(async () => (await stored(id)).source.includes('Dbm6'), 'the text to be saved');
      await page().press('e');
      await isTyped('Dbm6');
      expect((await stored(id)).version).toBe(2);
    });

    it('stands beside the version of another window where the chart has moved on meanwhile', async () => {
      const id = await newChart();
      await page().open(`/charts/${id}`);
      await type('');
      await server().stop();
      await type('| Dbm6 |');
      await stateIs('offline');
      await browser().get('about:blank');
      await server().start();
      await server().call('PUT', `songbook/${id}`, {
        base: 1,
        source: '{title: Moved on}\n| C |',
        plan: DEFAULT_PLAN
      });
      await page().open(`/charts/${id}`);
      await page().find('[data-notice="stale"]');
      await page().clickNamed('Keep mine');
      await page().saved();
      expect((await stored(id)).source).toContain('Dbm6');
      expect((await stored(id)).version).toBe(3);
    });

    it('is kept as a new chart where the chart was deleted elsewhere, or brings it back', async () => {
      const id = await newChart();
      await page().open(`/charts/${id}`);
      await type('');
      await server().call('DELETE', `songbook/${id}`);
      await type('| Dbm6 |');
      await page().find('[data-notice="gone"]');
      await page().clickNamed('Restore it');
      await page().saved();
      expect((await stored(id)).source).toContain('Dbm6');
      await server().call('DELETE', `songbook/${id}`);
      await type('| Gb7 |');
      await page().find('[data-notice="gone"]');
      await page().clickNamed('Keep it as a new chart');
      await page().until(async () => !(await browser().getCurrentUrl()).includes(id), 'the new chart');
      const other = (await browser().getCurrentUrl()).split('/').at(-1)!;
      expect((await stored(other)).source).toContain('Gb7');
    });

    it('of a deleted chart is offered where its page would be', async () => {
      const id = await newChart();
      await page().open(`/charts/${id}`);
      await type('');
      await server().stop();
      await type('| Dbm6 |');
      await stateIs('offline');
      await browser().get('about:blank');
      await server().start();
      await server().call('DELETE', `songbook/${id}`);
      await page().open(`/charts/${id}`);
      expect(
        (
          await page()
            .find('pre')
            .then((pre) => pre.getText())
        ).includes('Dbm6')
      ).toBe(true);
      await page().clickNamed('Keep it as a new chart');
      await page().until(
        async () =>
          /charts\/(?!$)/.test(await browser().getCurrentUrl()) &&
          (await page().all('[data-title]')).length === 1,
        'the new chart'
      );
      const other = (await browser().getCurrentUrl()).split('/').at(-1)!;
      expect((await stored(other)).source).toContain('Dbm6');
    });

    it('for a new chart is still there after a reload', async () => {
      await page().open('/');
      await page().replaceText(await page().find('textarea'), '| Dbm6 | Gb7 |');
      await page().open('/');
      await page().until(
        async () =>
          (await browser().executeScript('return document.querySelector("textarea").value')) ===
          '| Dbm6 | Gb7 |',
        'the text'
      );
      await page().clickNamed('Open it with a plan');
      await page().until(async () => (await page().targets()).length === 2, 'the plan');
      await page().open('/');
      expect(await browser().executeScript('return document.querySelector("textarea").value')).toBe('');
    });
  });

  describe('two windows', () => {
    it('hear of each other’s edits before they edit themselves', async () => {
      const id = await newChart();
      await page().open(`/charts/${id}`);
      await inAnotherWindow(async () => {
        await page().open(`/charts/${id}`);
        await page().press(Key.ARROW_UP);
        await page().saved();
      });
      await page().until(async () => (await page().position()) === 6, 'the other window’s position');
      await page().press(Key.ARROW_UP);
      await page().saved();
      expect((await stored(id)).version).toBe(3);
    });

    it('keep each other’s settings', async () => {
      await page().settings(DEFAULT_SETTINGS);
      await page().open(`/charts/${await newChart()}`);
      await inAnotherWindow(async () => {
        await page().open(`/charts/${await newChart()}`);
        await page().press('l');
        await page().until(
          async () => (await server().call<{ labels: string }>('PUT', 'settings', {})).body.labels === 'name',
          'the labels to be stored'
        );
      });
      await page().press('n');
      await page().until(
        async () => (await server().call<{ naming: string }>('PUT', 'settings', {})).body.naming === 'parent',
        'the naming to be stored'
      );
      const { body } = await server().call<{ labels: string }>('PUT', 'settings', {});
      expect(body.labels).toBe('name');
      await page().settings(DEFAULT_SETTINGS);
    });
  });

  describe('the title', () => {
    it('is changed where it stands, however it is written', async () => {
      const id = await newChart('{meta: title Old Rope}\n{key: Ab}\n| Bbm7 | Eb7 |');
      await page().open(`/charts/${id}`);
      await (await page().find('[data-title]')).click();
      await page().press('New Rope', Key.ENTER);
      await page().until(async () => (await page().texts('h1'))[0] === 'New Rope', 'the new title');
      await page().saved();
      expect((await stored(id)).source).toBe('{meta: title New Rope}\n{key: Ab}\n| Bbm7 | Eb7 |');
      await page().chord(Key.CONTROL, 'z');
      await page().until(async () => (await page().texts('h1'))[0] === 'Old Rope', 'the old title');
    });
  });

  describe('a pasted progression', () => {
    it('is looked at before it is taken, and says what is left out', async () => {
      await page().open('/');
      await browser().executeScript(
        `const field = document.querySelector('textarea');
         field.value = arguments[0];
         field.dispatchEvent(new Event('input', { bubbles: true }));`,
        'Rope Locker\nKey: F#m\nF#m → D → A → E\nhaul away'
      );
      await page().until(
        async () => (await page().texts('[data-paste-look] ol li')).length === 4,
        'four bars'
      );
      expect((await page().texts('[aria-label="What is left out"] li')).join()).toContain('haul away');
      await page().clickNamed('Take these bars');
      await page().until(async () => (await page().targets()).length === 4, 'the plan');
      expect((await page().texts('h1'))[0]).toBe('Rope Locker');
    });

    it('goes into the editor as bars, once looked at', async () => {
      const id = await newChart('');
      await page().open(`/charts/${id}`);
      await (await page().find('[data-editor] .cm-content')).click();
      await page().paste('Bbm7, Eb7, Abmaj7');
      await page().clickNamed('Insert the bars');
      // What was saved before stands there until the bars are on their way.
      await page().until(async () => (await stored(id)).source !== '', 'the bars to be kept');
      expect((await stored(id)).source).toContain('| Bbm7 | Eb7 | Abmaj7 |');
    });
  });

  describe('the server', () => {
    it('killed at any moment loses no save that it acknowledged', async () => {
      const id = await newChart();
      let [version, acknowledged] = [1, 1];
      for (let kill = 0; kill < 3; kill++) {
        // Counted from a save that has been acknowledged: a busy machine may take its time for the first.
        let dying: Promise<unknown> | undefined;
        for (;;) {
          const source = `${TUNE}\n# save ${version + 1}`;
          const saved = await server()
            .call<{ version: number }>('PUT', `songbook/${id}`, { base: version, source, plan: DEFAULT_PLAN })
            .catch(() => null);
          if (!saved) break;
          expect(saved.status).toBe(200);
          version = acknowledged = saved.body.version;
          dying ??= new Promise((done) => setTimeout(done, 150 + 90 * kill)).then(() =>
            server().stop('SIGKILL')
          );
        }
        await dying;
        await server().start();
        const now = await stored(id);
        // The last one may have been stored without its answer; sent again it is the same save.
        expect([acknowledged, acknowledged + 1]).toContain(now.version);
        expect(now.source).toContain(`# save ${now.version}`);
        version = acknowledged = now.version;
      }
      expect(version).toBeGreaterThan(3);
    });

    it('lets one of two who save at once be first, and tells the other', async () => {
      const id = await newChart();
      const save = (name: string) =>
        server().call('PUT', `songbook/${id}`, { base: 1, source: `${TUNE}\n# ${name}`, plan: DEFAULT_PLAN });
      const answers = await Promise.all(['a', 'b', 'c', 'd'].map(save));
      expect(answers.map(({ status }) => status).sort()).toEqual([200, 409, 409, 409]);
      expect((await stored(id)).version).toBe(2);
    });

    it('answers others while it works on the heaviest there is', async () => {
      const qualities = ['m7', '7', 'maj7', 'm7b5', '7b9', 'dim7'];
      const heavy = `{key: C}\n${Array.from({ length: 1500 }, (_, i) => `|${'CDEFGAB'[(i * 3) % 7]}${qualities[i % 6]}`).join('')}|`;
      let isDone = false;
      const long = server()
        .call('POST', 'targets', { chart: heavy, loop: true, alternatives: 20 })
        .then(({ status }) => {
          isDone = true;
          return status;
        });
      let answered = 0;
      while (!isDone && answered < 20) {
        const { status } = await server().call('POST', 'analysis', { chart: '| Dm7 | G7 |' });
        expect(status).toBe(200);
        if (!isDone) answered++;
      }
      expect(answered).toBeGreaterThan(5);
      expect([200, 413]).toContain(await long);
    });

    it.each([
      ['GET', 'analysis', undefined, 405],
      ['POST', 'no-such-thing', {}, 404],
      ['POST', 'analysis', { chart: 'x'.repeat(700_000) }, 413],
      ['POST', 'analysis', { chart: 5 }, 400],
      ['POST', 'targets', { chart: '| C |', column: { toString: 1 } }, 400],
      ['GET', 'songbook/none', undefined, 404],
      ['POST', 'import', { text: 'words only' }, 200]
    ])('%s %s: %#', async (method, path, body, status) => {
      const answer = await server().call<{ error?: { code: string; message: string } }>(method, path, body);
      expect(answer.status).toBe(status);
      if (status >= 400) expect(answer.body.error!.message).toMatch(/\w+ .*\./);
    });
  });
}
