// A headless Chromium with a profile of its own, through selenium-webdriver and ChromeDriver.
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Builder, Browser, logging } from 'selenium-webdriver';
import chrome from 'selenium-webdriver/chrome.js';

const BINARY = process.env.CHROMIUM ?? '/usr/bin/chromium';
const DRIVER = process.env.CHROMEDRIVER ?? '/usr/bin/chromedriver';

/** @param {string[]} args */
const profileOf = (args) =>
  args.find((a) => a.startsWith('--user-data-dir='))?.slice('--user-data-dir='.length);

/**
 * Processes of the browser that uses a profile.
 * @param {string} profile
 */
function chromiums(profile) {
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .filter((pid) => {
      try {
        return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(`--user-data-dir=${profile}`);
      } catch {
        return false; // it has ended meanwhile
      }
    })
    .map(Number);
}

/**
 * @param {{ width?: number, height?: number, args?: string[] }} [options]
 */
export async function openBrowser({ width = 1280, height = 800, args = [] } = {}) {
  const profile = mkdtempSync(join(tmpdir(), 'pebble-hall-'));
  const downloads = mkdtempSync(join(tmpdir(), 'pebble-hall-downloads-'));
  const options = new chrome.Options();
  options.setChromeBinaryPath(BINARY);
  options.addArguments(
    '--headless=new',
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--disable-dev-shm-usage',
    '--hide-scrollbars',
    ...(profileOf(args) ? [] : [`--user-data-dir=${profile}`]),
    `--window-size=${width},${height}`,
    ...args,
  );
  options.setUserPreferences({
    'download.default_directory': downloads,
    'download.prompt_for_download': false,
  });
  const logs = new logging.Preferences();
  logs.setLevel(logging.Type.BROWSER, logging.Level.ALL);
  options.setLoggingPrefs(logs);
  const driver = /** @type {import('selenium-webdriver/chrome.js').Driver} */ (
    await new Builder()
      .forBrowser(Browser.CHROME)
      .setChromeOptions(options)
      .setChromeService(new chrome.ServiceBuilder(DRIVER))
      .build()
  );
  await driver.sendDevToolsCommand('Emulation.setDeviceMetricsOverride', {
    width,
    height,
    deviceScaleFactor: 1,
    mobile: false,
  });
  return {
    driver,
    downloads,
    /** What the page wrote to its console since this was asked last. */
    said: async () => (await driver.manage().logs().get(logging.Type.BROWSER)).map(({ message }) => message),
    /** Ends the browser as a power cut does: without a word to it. */
    kill: async () => {
      for (const pid of chromiums(profileOf(args) ?? profile)) process.kill(pid, 'SIGKILL');
      await driver.quit().catch(() => undefined);
    },
    close: async () => {
      await driver.quit();
      for (const folder of [profile, downloads])
        rmSync(folder, { recursive: true, force: true, maxRetries: 5, retryDelay: 200 });
    },
  };
}
