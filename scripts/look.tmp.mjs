import { spawn } from 'node:child_process';
import { writeFileSync, rmSync } from 'node:fs';
import { openBrowser, setViewport } from './lib/browser.mjs';
import { By, Key } from 'selenium-webdriver';
for (const f of ['/tmp/look.db', '/tmp/look.db-wal', '/tmp/look.db-shm']) rmSync(f, { force: true });
const child = spawn(process.execPath, ['scripts/start.mjs'], {
  env: { ...process.env, PORT: '0', HOST: '127.0.0.1', CORVEL_DB: '/tmp/look.db', CORVEL_DEMO: '1' }
});
const port = await new Promise((r) => {
  let s = '';
  const f = (c) => {
    s += c;
    const m = /ready on http:\/\/\S+:(\d+)/.exec(s);
    if (m) r(m[1]);
  };
  child.stdout.on('data', f);
  child.stderr.on('data', f);
});
const u = `http://127.0.0.1:${port}`;
const browser = await openBrowser({});
const sleep = (ms) => new Promise((r) => setTimeout(r, ms));
const shot = async (n) =>
  writeFileSync(`/tmp/${n}.png`, Buffer.from(await browser.takeScreenshot(), 'base64'));
const TUNE =
  '{title: Ebb Blues}\n{key: Bb}\n{tempo: 132}\n{feel: swing}\n{style: blues}\n| Bb7 | Eb7 | Bb7 | Fm7 Bb7 | Eb7 | Edim7 | Bb7 | Dm7b5 G7b9 | Cm7 | F7 | Bb7 G7 | Cm7 F7 |';
const { DEFAULT } = {};
const r = await fetch(u + '/api/v1/songbook', {
  method: 'POST',
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify({ source: TUNE })
});
const body = await r.json();
console.log(r.status, JSON.stringify(body).slice(0, 100));
const id = body.id ?? (await (await fetch(u + '/api/v1/songbook')).json()).charts[0].id;
const count = () =>
  browser.executeScript(
    `return [...document.querySelectorAll('a[href],button,input,select,textarea,[tabindex]')].filter(e=>e.tabIndex>=0&&!e.disabled&&e.offsetParent!==null&&e.getBoundingClientRect().top<innerHeight&&getComputedStyle(e).visibility!=='hidden').map(e=>(e.getAttribute('aria-label')||e.textContent.trim().slice(0,20)||e.tagName))`
  );
try {
  await (await import(process.argv[2])).default({ browser, u, id, sleep, shot, count, setViewport, By, Key });
} catch (e) {
  console.log(e);
  await shot('err');
}
const logs = await browser
  .manage()
  .logs()
  .get('browser')
  .catch(() => []);
for (const l of logs) console.log(l.level.name, l.message.slice(0, 200));
await browser.quit();
child.kill();
