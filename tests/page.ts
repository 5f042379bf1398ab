/** A player at the browser: what is done again and again in the jobs. */
import { By, Key, until, type WebDriver, type WebElement } from 'selenium-webdriver';
import { DRIVEN_CLOCK } from './clock';
import { Finger } from './finger';

const PATIENCE = 15_000;

export class Page {
  /** For jobs done by touch. */
  readonly finger = new Finger(this);

  /** The page that is open writes notes by other names than are set, or something of the browser was altered in it. */
  #isStale = false;

  constructor(
    readonly browser: WebDriver,
    readonly base: () => string
  ) {}

  /** Goes to a view as a player does, along a link from the view that is open; from outside Corvel, and to where it is, by loading. */
  async open(path: string): Promise<void> {
    if (this.#isStale) return this.load(path);
    const isOnTheWay = await this.browser.executeScript<boolean>(
      `const [base, path] = arguments;
       const step = history.state?.['sveltekit:history'];
       const there = new URL(path, base);
       if (!location.href.startsWith(base) || step === undefined || there.pathname === location.pathname) return false;
       const link = document.body.appendChild(document.createElement('a'));
       link.href = path;
       link.click();
       link.remove();
       window.stepBefore = step;
       return true;`,
      this.base(),
      path
    );
    if (!isOnTheWay) return this.load(path);
    await this.until(
      async () =>
        (await this.browser.executeScript<boolean>(
          "return document.readyState === 'complete' && history.state?.['sveltekit:history'] !== window.stepBefore"
        )) === true,
      `the way to ${path}`
    );
    await this.drawn();
  }

  #drivenClock: string | null = null;

  /** From the next page on: music on a clock that the page drives, without a sound, or as it is heard. */
  async music(way: 'driven' | 'sounding'): Promise<void> {
    if ((way === 'driven') === (this.#drivenClock !== null)) return;
    this.#isStale = true;
    if (this.#drivenClock !== null) {
      await this.devTools('Page.removeScriptToEvaluateOnNewDocument', { identifier: this.#drivenClock });
      this.#drivenClock = null;
      return;
    }
    const { identifier } = await this.devTools<{ identifier: string }>(
      'Page.addScriptToEvaluateOnNewDocument',
      { source: DRIVEN_CLOCK }
    );
    this.#drivenClock = identifier;
  }

  /** Sets all settings. The page that is open hears of it as from another window; where notes get other names the next `open` loads anew. */
  async settings(settings: object): Promise<void> {
    const put = async (body: object) => {
      const answer = await fetch(`${this.base()}/api/v1/settings`, {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body)
      });
      return (await answer.json()) as { letters?: string };
    };
    const before = await put({});
    const after = await put(settings);
    if (JSON.stringify(before) === JSON.stringify(after)) return;
    if (before.letters !== after.letters) this.#isStale = true;
    else
      await this.browser.executeScript(
        `if (!location.href.startsWith(arguments[0])) return;
         const window = new BroadcastChannel('corvel');
         window.postMessage({ kind: 'settings', change: arguments[1] });
         window.close();`,
        this.base(),
        settings
      );
  }

  /** Puts something in the place of what the browser has. It ends with the page: the next `open` loads anew. */
  async alter(script: string, ...args: unknown[]): Promise<void> {
    this.#isStale = true;
    await this.browser.executeScript(script, ...args);
  }

  /** Loads a page anew, with nothing left of what was open before. */
  async load(path: string): Promise<void> {
    this.#isStale = false;
    await this.browser.get(this.base() + path);
    await this.browser.wait(until.elementLocated(By.css('body')), PATIENCE);
    // The page acts on keys once it has come alive.
    await this.until(
      async () =>
        (await this.browser.executeScript<boolean>(
          'return document.readyState === "complete" && document.documentElement.dataset.alive !== undefined'
        )) === true,
      'the page to come alive'
    );
    await this.drawn();
  }

  /** Until what has just been set is drawn. */
  async drawn(): Promise<void> {
    await this.browser.executeAsyncScript(
      'const done = arguments[0]; requestAnimationFrame(() => setTimeout(done, 50));'
    );
  }

  /** `patience` in milliseconds, for what takes the machine as long as it is busy. */
  async until(condition: () => Promise<boolean>, what = 'the condition', patience = PATIENCE): Promise<void> {
    await this.browser.wait(() => condition().catch(() => false), patience, `waited for ${what}`);
  }

  find(css: string): Promise<WebElement> {
    return this.browser.wait(until.elementLocated(By.css(css)), PATIENCE) as Promise<WebElement>;
  }

  all(css: string): Promise<WebElement[]> {
    return this.browser.findElements(By.css(css));
  }

  async texts(css: string): Promise<string[]> {
    return this.browser.executeScript(
      'return [...document.querySelectorAll(arguments[0])].map((e) => e.textContent.trim().replace(/\\s+/g, " "))',
      css
    );
  }

  /** One attribute of all elements that match. */
  async attributes(css: string, name: string): Promise<(string | null)[]> {
    return this.browser.executeScript(
      'return [...document.querySelectorAll(arguments[0])].map((e) => e.getAttribute(arguments[1]))',
      css,
      name
    );
  }

  async press(...keys: string[]): Promise<void> {
    await this.browser
      .actions()
      .sendKeys(...keys)
      .perform();
  }

  /** Pastes a text where the caret of the chart's editor is: all of it at once. */
  async paste(text: string): Promise<void> {
    await this.browser.executeScript(
      `const clipboardData = new DataTransfer();
       clipboardData.setData('text/plain', arguments[0]);
       document.querySelector('[data-editor] .cm-content').dispatchEvent(
         new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));`,
      text
    );
  }

  async chord(modifier: string, key: string): Promise<void> {
    await this.browser.actions().keyDown(modifier).sendKeys(key).keyUp(modifier).perform();
  }

  async replaceText(element: WebElement, text: string): Promise<void> {
    await element.click();
    await this.chord(Key.CONTROL, 'a');
    await this.press(text);
  }

  async clickNamed(name: string): Promise<void> {
    const button = await this.browser.wait(
      until.elementLocated(
        By.xpath(`//button[normalize-space()=${JSON.stringify(name)} or @aria-label=${JSON.stringify(name)}]`)
      ),
      PATIENCE
    );
    await button.click();
  }

  /** Opens a panel by its button, works in it, and puts it away. */
  async within(button: string, work: () => Promise<void>): Promise<void> {
    await (await this.find(button)).click();
    await this.find(`${button}[data-state="open"]`);
    await work();
    await this.browser.executeScript(
      'document.querySelector(arguments[0] + "[data-state=open]")?.click()',
      button
    );
    await this.until(
      async () => (await this.all(`${button}[data-state="open"]`)).length === 0,
      'the panel to close'
    );
  }

  /** Unfolds what a button unfolds, where it is not unfolded yet: the desk remembers. */
  async unfold(css: string): Promise<void> {
    const button = await this.find(css);
    if ((await button.getAttribute('aria-expanded')) !== 'true') await button.click();
  }

  /** Chooses an option of a select by its value. */
  async pick(label: string, value: string): Promise<void> {
    const trigger = await this.find(`[data-select="${label}"]`);
    await this.browser.executeScript('arguments[0].scrollIntoView({ block: "center" })', trigger);
    await trigger.click();
    const option = await this.find(`[role="option"][data-option="${value}"]`);
    await this.browser.executeScript('arguments[0].scrollIntoView({ block: "nearest" })', option);
    await option.click();
    await this.until(async () => (await this.all('[role="option"]')).length === 0, 'the list to close');
  }

  /** Presses keys on a slider. */
  async slide(label: string, ...keys: string[]): Promise<void> {
    const thumb = await this.find(`[role="slider"][aria-label="${label}"]`);
    await this.browser.executeScript('arguments[0].focus()', thumb);
    await this.press(...keys);
  }

  /** Types into a number field. */
  async number(label: string, value: string): Promise<void> {
    await this.find(`input[aria-label="${label}"]`);
    await this.browser.executeScript(
      `const field = document.querySelector('input[aria-label="' + arguments[0] + '"]');
       field.value = arguments[1]; field.dispatchEvent(new Event('change', { bubbles: true }));`,
      label,
      value
    );
  }

  /** A command to the browser's own tools, which the types of the driver leave out. */
  devTools<Answer = void>(name: string, options: object = {}): Promise<Answer> {
    const driver = this.browser as unknown as {
      sendAndGetDevToolsCommand(name: string, options: object): Promise<Answer>;
    };
    return driver.sendAndGetDevToolsCommand(name, options);
  }

  /** The page as it would be printed: the bytes of a PDF, one a character. */
  async pdf(): Promise<string> {
    const { data } = await this.devTools<{ data: string }>('Page.printToPDF', { preferCSSPageSize: true });
    return Buffer.from(data, 'base64').toString('latin1');
  }

  saved(): Promise<void> {
    return this.until(
      async () => (await this.attributes('[data-save-state]', 'data-save-state'))[0] === 'saved',
      'the chart to be saved'
    );
  }

  /** Until nothing in the page has changed for a quarter of a second: what follows a step at its end has come. */
  async settled(): Promise<void> {
    await this.browser.executeAsyncScript(
      `const done = arguments[0];
       let timer;
       const observer = new MutationObserver(() => wait());
       const wait = () => {
         clearTimeout(timer);
         timer = setTimeout(() => { observer.disconnect(); done(); }, 250);
       };
       observer.observe(document, { subtree: true, childList: true, attributes: true, characterData: true });
       wait();`
    );
  }

  /** Position of the hand, as the neck says it. */
  async position(): Promise<number> {
    return Number((await this.attributes('[role="slider"]', 'aria-valuenow'))[0]);
  }

  /** The target of every change, as "change:midi", from the Threads drawing. */
  async targets(): Promise<string[]> {
    return this.browser.executeScript(
      'return [...document.querySelectorAll("[data-target]")].map((e) => e.closest("[data-change]").dataset.change + ":" + e.dataset.tone)'
    );
  }
}
