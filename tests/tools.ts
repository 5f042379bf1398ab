/** What the jobs of one file share: the real build with a songbook of its own, and one headless browser. */
import type { WebDriver } from 'selenium-webdriver';
import { afterAll, beforeAll, inject } from 'vitest';
import { openBrowser } from '../scripts/lib/browser.mjs';
import type { Tools } from './jobs/neck';
import { FAKE_MICROPHONE, fakeSound } from './jobs/takes';
import { Page } from './page';
import { copyOf } from './seed';
import { Server } from './server';

/** A page of a test lives for seconds: only what runs very often is worth compiling into fast code. */
const SHORT_LIVES = '--js-flags=--interrupt-budget-for-maglev=300000,--invocation-count-for-maglev=4000';

type Jobs = readonly ((tools: () => Tools) => void)[];

/**
 * Starts server and browser before the jobs of a file and ends them after; gives how to reach them. The browser keeps no pages for
 * later, which each load would pay for.
 */
export const inBrowser = (...jobs: Jobs): void => start(jobs, false);

/** The same in a browser that keeps pages for when the server is away. */
export const inKeepingBrowser = (...jobs: Jobs): void => start(jobs, true);

function start(jobs: Jobs, keepsPages: boolean): void {
  let server: Server;
  let browser: WebDriver;
  let page: Page;
  beforeAll(async () => {
    server = new Server(copyOf(inject('seed')));
    const flags = [SHORT_LIVES, ...FAKE_MICROPHONE, `--use-file-for-fake-audio-capture=${fakeSound()}`];
    [browser] = await Promise.all([openBrowser({ flags }), server.start()]);
    page = new Page(browser, () => server.url);
    // As in a browser that has no such thing.
    if (!keepsPages)
      await page.devTools('Page.addScriptToEvaluateOnNewDocument', {
        source: 'delete Navigator.prototype.serviceWorker;'
      });
  });
  afterAll(async () => {
    await browser?.quit();
    await server?.stop();
  });
  for (const own of jobs) own(() => ({ page, browser, server }));
}
