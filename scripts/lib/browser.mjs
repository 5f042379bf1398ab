// Headless Chromium, as Debian ships it.
import { existsSync } from 'node:fs';
import { Builder } from 'selenium-webdriver';
import chrome from 'selenium-webdriver/chrome.js';

/** The same engine without windows and menus: a page costs a third less work. The script in /usr/bin would outlive what it starts. */
const SHELL = '/usr/lib/chromium/chromium-headless-shell';
const CHROMIUM = process.env.CORVEL_CHROMIUM ?? (existsSync(SHELL) ? SHELL : '/usr/bin/chromium');
const DRIVER = process.env.CORVEL_CHROMEDRIVER ?? '/usr/bin/chromedriver';

/** A new browser window of about 1280×800. `flags`: of the browser itself, as for a stand-in of a microphone. */
export async function openBrowser({ width = 1280, height = 800, flags = [] } = {}) {
  const options = new chrome.Options().setChromeBinaryPath(CHROMIUM).addArguments(
    '--headless=new',
    '--no-sandbox',
    '--disable-gpu',
    '--disable-dev-shm-usage',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--hide-scrollbars',
    // Text is as wide as on a screen.
    '--font-render-hinting=none',
    '--force-device-scale-factor=1',
    '--force-prefers-reduced-motion',
    `--window-size=${width},${height}`,
    ...flags
  );
  const browser = await new Builder()
    .forBrowser('chrome')
    .setChromeOptions(options)
    .setChromeService(new chrome.ServiceBuilder(DRIVER))
    .build();
  await setViewport(browser, width, height);
  return browser;
}

/** Sets the size of the page itself, whatever the window's frame takes. */
export async function setViewport(browser, width, height) {
  await browser.sendDevToolsCommand('Emulation.setDeviceMetricsOverride', {
    width,
    height,
    deviceScaleFactor: 1,
    mobile: false
  });
}
