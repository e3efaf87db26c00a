import { readdirSync, readFileSync, existsSync } from 'node:fs';
import { join } from 'node:path';
import { type WebElement, Key } from 'selenium-webdriver';
import { openBrowser } from './browser.mjs';

type Opened = Awaited<ReturnType<typeof openBrowser>>;

const quote = (text: string) => (text.includes('"') ? `'${text}'` : `"${text}"`);

/** Between two looks at a page that is waited for, ms. */
const [LEAST_REST_MS, MOST_REST_MS] = [80, 800];

/** A busy machine is waited for so long; whoever mends a test asks for less. */
const PATIENCE_MS = 1000 * Number(process.env['PEBBLE_HALL_PATIENCE_S'] ?? 150);

/** A user at a browser: finds things by role and label, waits for what appears, reads what is written. */
export class User {
  private opened: Opened | undefined;
  /** of the server */
  url = '';

  /** Opens an empty browser of the user's own; pages are visited on the server at `url`. */
  async open(url: string, options?: Parameters<typeof openBrowser>[0]): Promise<void> {
    this.url = url;
    this.opened = await openBrowser(options);
  }

  static async at(...opening: Parameters<User['open']>): Promise<User> {
    const user = new User();
    await user.open(...opening);
    return user;
  }

  private get browser(): Opened {
    if (!this.opened) throw new Error('The user has no browser yet.');
    return this.opened;
  }

  get driver() {
    return this.browser.driver;
  }

  /** Opens a project file, and waits until it is the one that is open. */
  async openProjectFile(path: string): Promise<void> {
    const id = () =>
      this.driver.executeScript<string>(`return sessionStorage.getItem('pebble-hall.project')`);
    const before = await id();
    await this.chooseFile('Project file', path);
    await this.until('the project of the file is open', async () => (await id()) !== before);
  }

  /** As a power cut would end it. */
  kill = async () => this.opened?.kill();

  /** Leaves. @throws Error when a page wanted something that its policy forbids: it would be missing for the user */
  close = async () => {
    const said = (await this.opened?.said().catch(() => [])) ?? [];
    await this.opened?.close();
    const forbidden = said.filter((line) => line.includes('Content Security Policy'));
    if (forbidden.length > 0)
      throw new Error(`Forbidden by the page's policy: ${forbidden.slice(0, 3).join('\n')}`);
  };

  async visit(path: string): Promise<void> {
    await this.isStored();
    await this.driver.get(this.url + path);
    await this.sees('Pebble Hall');
  }

  /** Waits a moment for what the browser would ask about before the page is left: an edit on its way to be stored. */
  private isStored = (): Promise<void> =>
    this.until(
      'what was done to be stored',
      () =>
        this.driver.executeScript<boolean>(`
          const event = new Event('beforeunload', { cancelable: true });
          return dispatchEvent(event);`),
      3000,
    ).catch(() => {});

  /** What the page reads, line by line. */
  text = (): Promise<string> => this.readingOf('return document.body.innerText');

  /** The browser's own reading takes a fifteenth of the driver's, whose polling held the page up. */
  private async readingOf(script: string, ...given: unknown[]): Promise<string> {
    const read = await this.driver.executeScript<string>(script, ...given);
    return read.replace(/\t/g, ' ').replace(/\n+/g, '\n').trim();
  }

  /** For a test that fails: what is told, before all else that the page reads. */
  private async howItLooks(): Promise<string> {
    const alerts = await this.readingOf(
      `return [...document.querySelectorAll('[role=alert]')].map((a) => a.innerText).join(' | ')`,
    );
    return `${alerts ? `It tells: ${alerts}. ` : 'It tells no problem. '}The page reads:\n${(await this.text()).slice(0, 2500)}`;
  }

  /** Waits until something holds. */
  async until(what: string, holds: () => Promise<boolean>, ms = PATIENCE_MS): Promise<void> {
    const began = Date.now();
    for (;;) {
      if (await holds().catch(() => false)) return;
      if (Date.now() > began + ms)
        throw new Error(`Waited ${ms / 1000} s for: ${what}. ${await this.howItLooks()}`);
      // looking takes time from what is waited for: the longer it takes, the less often
      const rest = Math.min(MOST_REST_MS, Math.max(LEAST_REST_MS, (Date.now() - began) / 10));
      await new Promise((resolve) => setTimeout(resolve, rest));
    }
  }

  async sees(text: string | RegExp, ms?: number): Promise<string> {
    let found = '';
    await this.until(
      `the text ${text}`,
      async () => {
        const match =
          typeof text === 'string'
            ? (await this.text()).includes(text) && text
            : text.exec(await this.text())?.[0];
        if (match) found = match;
        return Boolean(match);
      },
      ms,
    );
    return found;
  }

  /** Waits until the page no longer reads so, or never did. */
  async lacks(text: string | RegExp, ms?: number): Promise<void> {
    await this.until(
      `no text ${text}`,
      async () => {
        const page = await this.text();
        return typeof text === 'string' ? !page.includes(text) : !text.test(page);
      },
      ms,
    );
  }

  /** Waits until the page reads so as many times: parts of it are drawn one after the other. */
  async counts(text: RegExp, times: number): Promise<void> {
    await this.until(
      `${times} times the text ${text}`,
      async () => [...(await this.text()).matchAll(new RegExp(text, 'g'))].length === times,
    );
  }

  /** Waits until a labelled region reads so; its match. */
  async reads(label: string, text: RegExp, ms?: number): Promise<RegExpExecArray> {
    let found: RegExpExecArray | null = null;
    await this.until(
      `${text} in ${label}`,
      async () => (found = text.exec(await this.textOf(label))) !== null,
      ms,
    );
    return found!;
  }

  async find(xpath: string, ms = 20_000): Promise<WebElement> {
    let element: WebElement | undefined;
    await this.until(
      xpath,
      async () => {
        element = (await this.driver.findElements({ xpath }))[0];
        return element !== undefined;
      },
      ms,
    );
    return element!;
  }

  button = (name: string) =>
    this.find(
      `//button[normalize-space(.)=${quote(name)} or @aria-label=${quote(name)}] | //*[@role="menuitem"][normalize-space(.)=${quote(name)}] | //*[@role="button"][@aria-label=${quote(name)}]`,
    );
  field = (label: string) => this.find(`//input[@aria-label=${quote(label)}]`);
  slider = (label: string) => this.find(`//*[@role="slider"][@aria-label=${quote(label)}]`);
  region = (label: string) => this.find(`//*[@aria-label=${quote(label)}]`);

  async press(name: string): Promise<void> {
    // the page may draw a button anew between finding and pressing it
    await this.until(`pressing "${name}"`, async () => {
      const button = await this.button(name);
      if (!(await button.isEnabled())) return false;
      await this.hit(button);
      return true;
    });
  }

  async tick(label: string): Promise<void> {
    await this.click(`//label[contains(normalize-space(.), ${quote(label)})]`);
  }

  /** Clicks what is found; once more where the page drew it anew between finding and clicking. */
  async click(xpath: string): Promise<void> {
    await this.until(`clicking ${xpath}`, async () => {
      await this.hit(await this.find(xpath));
      return true;
    });
  }

  /** Clicks; what something else lies on is scrolled to the middle first, as one would. */
  private async hit(element: WebElement): Promise<void> {
    try {
      await element.click();
    } catch (problem) {
      await this.driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', element);
      throw problem;
    }
  }

  /** Nothing that is asked of the server is answered, until it is again. */
  async goOffline(offline: boolean): Promise<void> {
    const driver = this.driver;
    await driver.sendDevToolsCommand('Network.enable', {});
    await driver.sendDevToolsCommand('Network.emulateNetworkConditions', {
      offline,
      latency: 0,
      downloadThroughput: -1,
      uploadThroughput: -1,
    });
  }

  /** Switches a practice fault of the stand-in on or off. */
  async practise(label: string): Promise<void> {
    const opener = '//button[normalize-space(.)="Practise" or normalize-space(.)="Trouble is on"]';
    await (await this.find(opener)).click();
    await this.find('//section[@aria-label="Trouble to practise with"]');
    await this.tick(label);
    await (await this.find(opener)).click();
    await this.until(
      'the practice list is closed',
      async () =>
        (await this.driver.findElements({ xpath: '//section[@aria-label="Trouble to practise with"]' }))
          .length === 0,
    );
  }

  /** Opens a part of the Rig. */
  async view(name: string): Promise<void> {
    await (await this.find(`//*[@role="tab"][starts-with(@aria-label, ${quote(`${name},`)})]`)).click();
    await this.find(
      `//*[@role="tab"][starts-with(@aria-label, ${quote(`${name},`)})][@aria-selected="true"]`,
    );
  }

  /** Chooses one of several that stand beside each other. */
  async among(group: string, option: string): Promise<void> {
    const at = `//*[@aria-label=${quote(group)}]//label[normalize-space(.)=${quote(option)}]`;
    // a dialog that is still coming in moves away from under the press
    await this.until(`${option} of ${group}`, async () => {
      const label = await this.find(at);
      const id = await label.getAttribute('for');
      const isChosen = async () => !id || (await this.driver.findElement({ id }).isSelected());
      if (id && (await isChosen())) return true;
      await label.click();
      return isChosen();
    });
  }

  /** Chooses in a list by what is written there. */
  async choose(label: string, option: string): Promise<void> {
    await this.click(`//select[@aria-label=${quote(label)}]//option[normalize-space(.)=${quote(option)}]`);
  }

  /** Chooses in a list that unfolds, by what is written there. */
  async pick(label: string, option: string): Promise<void> {
    let openedAt = -Infinity;
    await this.until(`choosing ${option}`, async () => {
      // a page that is still settling may close the list again: then it is unfolded once more
      if (Date.now() - openedAt > 3000) {
        await (await this.field(label)).click();
        openedAt = Date.now();
      }
      const options = await this.driver.findElements({
        xpath: `//*[@role="option"][normalize-space(.)=${quote(option)}]`,
      });
      for (const shown of options) {
        if (!(await shown.isDisplayed())) continue;
        await shown.click();
        return true;
      }
      return false;
    });
  }

  /** Text of a labelled region. */
  textOf = async (label: string): Promise<string> =>
    this.readingOf('return arguments[0].innerText', await this.region(label));

  /** Types a value into a number field and settles it. */
  async type(label: string, value: string): Promise<void> {
    const field = await this.field(label);
    await field.click();
    await field.sendKeys(Key.chord(Key.CONTROL, 'a'), value, Key.ENTER);
  }

  async keys(element: WebElement, ...keys: string[]): Promise<void> {
    await element.sendKeys(...keys);
  }

  /** Gives a file to a hidden file input, as choosing it in the dialog does. */
  async chooseFile(label: string, path: string): Promise<void> {
    await (await this.field(label)).sendKeys(path);
  }

  /** The file that a download has brought, once it is complete. */
  async download(name: RegExp): Promise<{ path: string; bytes: Buffer }> {
    let path = '';
    await this.until(`a download of ${name}`, async () => {
      const found = readdirSync(this.browser.downloads).find(
        (f) => name.test(f) && !f.endsWith('.crdownload'),
      );
      if (found) path = join(this.browser.downloads, found);
      return found !== undefined && !existsSync(`${path}.crdownload`);
    });
    return { path, bytes: readFileSync(path) };
  }
}
