/** Jobs on the target line: styles, rules, alternatives, what-if, approach notes, wishes that cannot be met, long work. */
import { Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { DEFAULT_SETTINGS } from '../../src/lib/api/default-settings';
import type { Tools } from './neck';
import { AT_FIVE } from '../plan';

const CADENCE = '{title: Path job}\n{key: F}\n| Gm7 | C7 | Fmaj7 | Dm7 | Bm7b5 | E7b9 | Am7 | D7 |';

interface TargetsAnswer {
  paths: {
    cost: number;
    price?: string;
    targets: {
      change: number;
      cell: { midi: number; string: number; fret: number };
      approach?: { string: number; fret: number; kind: string }[];
    }[];
  }[];
  noPath?: { change: number; message: string };
}

export function targetJobs(tools: () => Tools): void {
  const page = () => tools().page;
  const browser = () => tools().browser;

  async function open(source = CADENCE): Promise<string> {
    const { server } = tools();
    await page().settings(DEFAULT_SETTINGS);
    const { body } = await server.call<{ id: string }>('POST', 'songbook', { source, plan: AT_FIVE });
    await page().open(`/charts/${body.id}`);
    return body.id;
  }

  const route = async (body: object) =>
    (await tools().server.call<TargetsAnswer>('POST', 'targets', { chart: CADENCE, ...body })).body;
  const asTargets = ({ paths }: TargetsAnswer) =>
    paths[0]!.targets.map(({ change, cell }) => `${change}:${cell.midi}`);
  const DEFAULT = { position: 5, degrees: ['3', '7'], standIn: true, loop: true };

  describe('the target path', () => {
    it('follows a style, opens it into weights, and takes both back', async () => {
      await open();
      const smooth = asTargets(await route(DEFAULT));
      await page().until(async () => (await page().targets()).join() === smooth.join(), 'the smooth path');
      await page().clickNamed('other lines');
      await page().pick('Style', 'thirds');
      const weights = { degree: { '3': 0, '7': 4, '1': 6, '5': 7, tension: 8 } };
      const thirds = asTargets(await route({ ...DEFAULT, weights }));
      await page().until(async () => (await page().targets()).join() === thirds.join(), 'strong thirds');
      await page().press('r');
      await page().slide('Cost of a semitone', Key.END);
      await page().until(
        async () => (await page().texts('[data-select="Style"]'))[0] === 'a style of your own',
        'an own style'
      );
      await browser().executeScript('document.activeElement.blur()');
      await page().chord(Key.CONTROL, 'z');
      await page().chord(Key.CONTROL, 'z');
      await page().until(
        async () => (await page().targets()).join() === smooth.join(),
        'the smooth path again'
      );
    });

    it('lists the next best paths with their price, shows and takes one', async () => {
      await open();
      await page().press('x');
      await page().until(async () => (await page().all('[data-alternative]')).length >= 2, 'alternatives');
      const offered = await page().texts('[data-alternative]');
      expect(new Set(offered).size).toBe(offered.length);
      const { paths } = await route({ ...DEFAULT, alternatives: 24 });
      expect(offered[0]).toContain(paths[1]!.price);
      const before = await page().targets();
      const first = await page().find('[data-alternative]');
      await browser().actions().move({ origin: first }).perform();
      await page().find('[data-offered]');
      await first.click();
      const wanted = paths[1]!.targets.map(({ change, cell }) => `${change}:${cell.midi}`);
      await page().until(async () => (await page().targets()).join() === wanted.join(), 'the other path');
      await page().chord(Key.CONTROL, 'z');
      await page().until(async () => (await page().targets()).join() === before.join(), 'the best path');
    });

    it('shows where the thread would go while it is dragged', async () => {
      await open();
      await page().until(async () => (await page().targets()).length === 8, 'a path');
      const tone = await page().find('[data-change="2"] [data-target]');
      const other = await page().find('[data-change="2"] [data-degree="5"]');
      await browser().actions().move({ origin: tone }).press().move({ origin: other }).perform();
      await page().until(async () => (await page().all('[data-prospect]')).length === 1, 'the prospect');
      expect((await page().texts('[data-prospect-price]'))[0]).toMatch(/semitone|held|on a 3 or 7|elsewhere/);
      await browser().actions().release().perform();
      await page().until(async () => (await page().all('[data-prospect]')).length === 0, 'no prospect');
      await page().until(
        async () => (await page().attributes('[data-change="2"] [data-target]', 'data-degree'))[0] === '5',
        'the fifth'
      );
      // By keyboard: the same target let go again.
      await page().press(Key.HOME, Key.ARROW_RIGHT, Key.ARROW_RIGHT, '0');
      await page().until(
        async () => (await page().attributes('[data-change="2"] [data-target]', 'data-degree'))[0] !== '5',
        'the target let go'
      );
    });

    it('rests where no target is asked for, and lands again inside long changes', async () => {
      const id = await open('{key: C}\n| C Am | Dm7 G7 | Cmaj7 | % |');
      await page().press('r');
      await page().pick('Changes with a target', 'first-of-bar');
      await page().until(
        async () => (await page().all('[data-resting]')).length === 2,
        'two resting changes'
      );
      expect((await page().targets()).map((at) => at.split(':')[0])).toEqual(['0', '2', '4', '5']);
      await page().pick('Targets inside a change', '2');
      await page().until(async () => (await page().all('[data-later]')).length === 2, 'two targets inside');
      expect(await page().attributes('[data-later]', 'data-later')).toEqual(['4:3', '5:3']);
      await page().saved();
      await page().open(`/charts/${id}`);
      await page().until(async () => (await page().all('[data-later]')).length === 2, 'both kept');
    });

    it('leads into targets as the route does, one of them otherwise', async () => {
      await open();
      await page().press('r');
      await page().pick('Approach notes into all targets', 'below');
      await page().until(
        async () => (await page().all('[aria-label="Threads"] [data-approach="below"]')).length > 3,
        'approach notes'
      );
      const { paths } = await route({ ...DEFAULT, approach: 'below' });
      const expected = paths[0]!.targets.flatMap(({ approach }) => approach ?? []);
      expect(await page().all('[aria-label="Threads"] [data-approach]')).toHaveLength(expected.length);
      // On the neck: what leads into the next change.
      const next = paths[0]!.targets[1]!.approach;
      expect(await page().attributes('[aria-label="Neck"] [data-approach]', 'data-at')).toEqual(
        (next ?? []).map(({ string, fret }) => `${string}:${fret}`)
      );
      await page().press(Key.ARROW_RIGHT);
      await page().pick('Approach note into this target', 'none');
      await page().until(
        async () => (await page().all('[data-lead]')).length === 0,
        'no lead into the second change'
      );
    });

    it('names the change where a wish cannot be met, and what would help; that helps', async () => {
      await open();
      await page().press('r');
      await page().clickNamed('other lines');
      for (const string of [1, 2, 3, 4, 5]) await page().clickNamed(`String ${string}`);
      // The E of C7 lies nowhere near on the lowest string.
      await page().pick('How the target line is led', '3');
      const { noPath } = await route({ ...DEFAULT, column: '3', strings: [6] });
      const said = async () => (await page().texts('[aria-label="Threads"] [role="status"]'))[0] ?? '';
      await page().until(async () => (await said()).length > 0, 'a reason');
      expect(await said()).toBe(noPath!.message);
      const string = /allow string (\d) too/.exec(await said())?.[1];
      if (string) await page().clickNamed(`String ${string}`);
      else await page().clickNamed('reset');
      await page().until(async () => (await page().targets()).length === 8, 'a path again');
    });

    it('shows long work, can be stopped and go on', async () => {
      const bars = Array.from(
        { length: 120 },
        (_, i) => ['Gm7', 'C7alt', 'F13', 'Bbmaj7', 'Ebm7', 'Ab13', 'Dbmaj7'][i % 7]!
      );
      await open(`{key: F}\n${Array.from({ length: 6 }, () => `| ${bars.join(' | ')} |`).join('\n')}`);
      await page().press('r');
      await page().clickNamed('other lines');
      for (const degree of ['1', '5']) await page().clickNamed(`Allow the ${degree} as a target`);
      await page().pick('Where targets lie', 'neck');
      await page().press('x');
      await page().clickNamed('stop');
      await page().until(
        async () => (await page().texts('[aria-label="Target line"]'))[0]!.includes('Stopped'),
        'the work stopped'
      );
      await page().clickNamed('go on');
      await page().until(
        async () => (await page().all('[role="progressbar"]')).length === 1,
        'work under way'
      );
      // A new wish does not wait for the old one.
      await page().pick('Where targets lie', 'hand');
      await page().until(
        async () => (await page().all('[data-alternative]')).length > 0,
        'the answer to the newest wish'
      );
    });

    it('prints the landing sheet on one page', async () => {
      await open();
      await page().press('r');
      await browser().executeScript(`window.print = () => window.dispatchEvent(new Event('beforeprint'))`);
      await page().until(
        async () =>
          (await browser().executeScript<boolean>(
            `[...document.querySelectorAll('button')].find((b) => b.textContent.includes('landing sheet')).click();
             return document.querySelectorAll('[data-sheet] li').length === 8`
          )) === true,
        'the sheet'
      );
      expect((await page().pdf()).match(/\/Type \/Page\b/g)).toHaveLength(1);
      await browser().executeScript(`window.dispatchEvent(new Event('afterprint'))`);
    });
  });
}
