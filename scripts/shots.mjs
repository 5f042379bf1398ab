// One current picture of each main view, from the demo songbook, into docs/screenshots.
import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs';
import { spawn } from 'node:child_process';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensureBrowser, ensureBuild, ensurePackages, ROOT } from './lib/setup.mjs';
import { say } from './lib/say.mjs';

ensurePackages();
ensureBuild();
ensureBrowser();
const { openBrowser, setViewport } = await import('./lib/browser.mjs');

const PORT = '4181';
const BASE = `http://127.0.0.1:${PORT}`;
const database = join(mkdtempSync(join(tmpdir(), 'corvel-shots-')), 'songbook.db');
const server = spawn(process.execPath, ['scripts/start.mjs'], {
  cwd: ROOT,
  env: { ...process.env, PORT, CORVEL_DB: database, CORVEL_DEMO: '1' },
  stdio: ['ignore', 'pipe', 'inherit']
});
await new Promise((ready) => server.stdout.on('data', (said) => said.includes('ready') && ready()));

const list = await (await fetch(`${BASE}/api/v1/songbook`)).json();
const chart = (title) => `/charts/${list.charts.find((one) => one.title === title).id}`;

// A card on the neck, asked long ago, so that it comes first.
await fetch(`${BASE}/api/v1/practice/reviews`, {
  method: 'POST',
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify({
    reviews: [
      {
        id: '00000000-0000-4000-8000-000000000000',
        question: { kind: 'moves', from: 'Dm7b5', to: 'G7b13', at: 3 },
        at: 1.5e12,
        day: '2017-07-14',
        isRight: true,
        seconds: 9
      }
    ]
  })
});

/** name, path, theme, keys pressed before the picture; size, what is clicked, the desk that the band plays by. */
const SHOTS = [
  ['songbook-day', '/', 'day', []],
  ['workspace-day', chart('Cabin Without a Window'), 'day', ['ArrowRight', 'ArrowRight', 'ArrowRight']],
  [
    'workspace-stage',
    chart('Waltz for the Night Steward'),
    'stage',
    ['ArrowRight', 'ArrowRight', 'ArrowRight', 'ArrowRight', 'ArrowRight']
  ],
  [
    'choices-compare',
    chart('Cabin Without a Window'),
    'day',
    ['ArrowRight', 'ArrowRight'],
    undefined,
    ['[aria-label="Compare A locrian natural 2"]', '[aria-label="Compare A locrian"]']
  ],
  ['position-map', chart('Lantern on the Stern'), 'day', ['o', 'm']],
  [
    'path-rules',
    chart('Cabin Without a Window'),
    'day',
    ['ArrowRight', 'ArrowRight', 'ArrowRight', 'r', 'x']
  ],
  [
    'rehearse-playing',
    `${chart('Cabin Without a Window')}?view=rehearse`,
    'stage',
    [],
    undefined,
    [],
    { drill: 'arpeggio-scale' }
  ],
  ['lines', chart('Cabin Without a Window'), 'day', ['ArrowRight', 'i'], undefined, ['[data-phrase="1"]']],
  [
    'lines-written',
    `${chart('Bilge Pump Blues')}?view=lines`,
    'day',
    ['n', 'ArrowRight', 'ArrowRight'],
    undefined,
    ['[data-toggle="score"]']
  ],
  ['lick-book', '/licks', 'day', []],
  ['today', '/today', 'day', []],
  ['progress', '/today?show=progress', 'day', []],
  ['trainer', '/trainer', 'stage', [], undefined, ['[data-begin]']],
  ['grips', chart('Lantern on the Stern'), 'day', ['ArrowRight', 'g']],
  [
    'practice-book',
    `${chart('Three Harbours')}/book`,
    'day',
    [],
    { width: 1280, height: 860 },
    ['[data-page="3"] a']
  ],
  ['chord-table', chart('Three Harbours'), 'day', ['b']],
  ['chart-editor', chart('Bilge Pump Blues'), 'day', ['e']],
  ['takes', `${chart('Bilge Pump Blues')}?view=takes`, 'day', ['ArrowRight']],
  [
    'workspace-phone',
    chart('Bilge Pump Blues'),
    'day',
    ['ArrowRight', 'ArrowRight'],
    { width: 390, height: 844 }
  ]
];

const browser = await openBrowser();
const folder = join(ROOT, 'docs/screenshots');
mkdirSync(folder, { recursive: true });
for (const [name, path, theme, keys, size = { width: 1280, height: 800 }, clicks = [], desk] of SHOTS) {
  await setViewport(browser, size.width, size.height);
  await browser.get(BASE + path);
  await browser.sleep(500);
  for (const key of keys) {
    await browser.executeScript(
      'document.body.dispatchEvent(new KeyboardEvent("keydown", { key: arguments[0], bubbles: true }))',
      key
    );
  }
  // What is out of sight follows at a rest.
  if (clicks.length) await browser.sleep(400);
  for (const css of clicks) await browser.executeScript('document.querySelector(arguments[0]).click()', css);
  await browser.executeScript('document.documentElement.dataset.theme = arguments[0]', theme);
  await browser.sleep(900);
  if (desk) {
    await browser.executeScript('localStorage.setItem("corvel-desk", arguments[0])', JSON.stringify(desk));
    await browser.get(BASE + path);
    await browser.sleep(1500);
    // A real press: browsers give sound to nothing else. The count-in, and some bars.
    await browser.actions().sendKeys(' ').perform();
    await browser.sleep(7600);
  }
  writeFileSync(join(folder, `${name}.png`), await browser.takeScreenshot(), 'base64');
  say(`docs/screenshots/${name}.png`);
}
await browser.quit();
server.kill();
