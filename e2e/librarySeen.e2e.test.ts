import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { aUser } from './support/aUser';
import { violations } from './support/axe';
import { libraryRows } from './support/libraryRows';
import { openShelved } from './support/shelf';

const user = aUser();
const { row, choose } = libraryRows(user);
const number = (text: string) => Number(text.replace('\u2212', '-'));
const DUNLIN = 'Dunlin 6 in the open';
const folder = mkdtempSync(join(tmpdir(), 'seen-'));
const rows = () =>
  user.driver.executeScript<string[]>(
    `return [...document.querySelectorAll('.trace-row')].map((r) => r.title)`,
  );
/** A response in text: level over frequency, with a phase of nothing. */
const flat = (name: string, db: number) => {
  const path = join(folder, `${name}.txt`);
  const hz = Array.from({ length: 120 }, (_, i) => 20 * 2 ** (i / 12));
  writeFileSync(path, `Hz\tdB\tdeg\n${hz.map((f) => `${f.toFixed(3)}\t${db}\t0`).join('\n')}`);
  return path;
};

describe('how the library is looked at', () => {
  it('a loudspeaker in the open is laid beside what was imported, and the difference drawn', async () => {
    await user.visit('/traces#library');
    await user.chooseFile('Files to import', [flat('low', -6), flat('high', 4)].join('\n'));
    await user.press('Import 2 traces');
    await user.press(`Show ${DUNLIN}`);
    await user.press('Look');
    await user.choose('Differences against', 'low');
    await user.click('//label[normalize-space(.)="Mark"]');
    await user.type('Marked from', '300');
    await user.type('Marked to', '600');
    const [, high] = await user.reads('In the marked band', /([+\u2212][\d.]+) dB high/);
    expect(number(high!)).toBe(4);
    const [, low] = await user.reads('In the marked band', /([+\u2212][\d.]+) dB low/);
    expect(number(low!)).toBe(-6);
    // the library's loudspeaker lies near 0 dB within its band
    const [, open] = await user.reads('In the marked band', /([+\u2212][\d.]+) dB Dunlin 6/);
    expect(Math.abs(number(open!))).toBeLessThan(3);
    await user.sees('against low');
    await user.choose('Target, drawn as a band', 'high');
    expect(await violations(user)).toEqual([]);
  });

  it('a view is kept by name, left, and comes back with what it showed; and all survives a reload', async () => {
    await user.type('Name of this view', 'Mids');
    await user.find('//button[normalize-space(.)="Mids"]');
    await user.press('Look');
    await user.press('One more plot');
    await user.choose('Below the level', 'Group delay');
    await user.press('Hide high');
    await user.press('Look');
    await user.click('//button[normalize-space(.)="Mids"]');
    await user.find('//button[@aria-label="Hide high"]');
    const select = await user.find('//select[@aria-label="Below the level"]');
    expect(await select.getAttribute('value')).toBe('Difference');
    await user.driver.navigate().refresh();
    await user.sees('against low');
    await user.find(`//button[@aria-label="Hide ${DUNLIN}"]`);
    await user.reads('In the marked band', /dB Dunlin 6/);
  });

  it('rows are put into an order of their own by keys, and back by undo', async () => {
    await user.choose('Sorted', 'own order');
    await user.until('the order of the files', async () => (await rows()).slice(0, 2).join() === 'low,high');
    await user.click(row('high'));
    await (await user.find(row('high'))).sendKeys(Key.chord(Key.ALT, Key.ARROW_UP));
    await user.until('the other order', async () => (await rows())[0] === 'high');
    await user.press('Undo: trace moved');
    await user.until('it is back', async () => (await rows())[0] === 'low');
  });
});

describe('windows, sets and FLAC', () => {
  it('through a window the reflection is gone, and one press brings it back', async () => {
    // a direct sound, and half of it 8 ms later: dips of 9.5 dB below its peaks
    const samples = Array.from({ length: 4096 }, (_, i) => (i === 100 ? 1 : i === 484 ? 0.5 : 0));
    const path = join(folder, 'echo.ir.txt');
    writeFileSync(path, `# sample rate: 48000 Hz\n# time zero at sample 100\n${samples.join('\n')}`);
    await user.chooseFile('Files to import', path);
    await user.press('Import 1 trace');
    await choose('echo.ir');
    await user.choose('Smoothing', '1/48 octave');
    await user.press('Look');
    await user.type('Marked from', '298');
    await user.type('Marked to', '328');
    const level = async () => {
      const [, db] = await user.reads('In the marked band', /([+\u2212][\d.]+) dB echo\.ir/);
      return number(db!);
    };
    // 8 ms: half a turn at 312.5 Hz, where the two add up to a half; over the band 1.25 - sin(x) / x of power, x = 0.75
    await user.until('a dip', async () => Math.abs((await level()) + 4.7) < 0.5);
    await user.press('Look');
    await user.tick('window');
    await user.type('Window behind the arrival', '7');
    await user.until('the direct sound alone', async () => Math.abs(await level()) < 0.6);
    await user.press('As it was');
    await user.until('the reflection is back', async () => (await level()) < -4.2);
  });

  it('two traces go out as a set, and as FLAC, and come back the same', async () => {
    await choose('echo.ir', 'high');
    await user.press('Export');
    await user.press('All in one AES69 set');
    const set = await user.download(/\.sofa$/);
    await choose('echo.ir');
    await user.press('Export');
    await user.press('Impulse response, FLAC');
    const flac = await user.download(/\.flac$/);
    const paths = [join(folder, 'set.sofa'), join(folder, 'again.flac')];
    writeFileSync(paths[0]!, set.bytes);
    writeFileSync(paths[1]!, flac.bytes);
    await user.chooseFile('Files to import', paths.join('\n'));
    await user.reads('set.sofa', /A set of 2 responses/);
    await user.press('Import 3 traces');
    for (const [name, like] of [
      ['set, measurement 1', 'echo.ir'],
      ['set, measurement 2', 'high'],
      ['again', 'echo.ir'],
    ] as const) {
      await choose(name, like);
      await user.type('Alike from', '100');
      await user.type('Alike to', '2000');
      const [, mean, shape, phase] = await user.reads(
        'How alike',
        /lies ([+\u2212]?[\d.]+) dB over .* differ by ([\d.]+) dB RMS, phases by (\d+)° RMS/,
      );
      expect(Math.abs(number(mean!))).toBeLessThan(0.2);
      expect(Number(shape)).toBeLessThan(0.3);
      expect(Number(phase), `phase of ${name}`).toBeLessThan(3);
    }
  });
});

describe('what one project has and another wants', () => {
  it('a trace on the shelf stands beside the loudspeakers of every project, and is brought in with its samples', async () => {
    await choose('high');
    await user.press('To the shelf');
    await user.press('Off the shelf');
    await user.press('To the shelf');
    await user.find('//button[normalize-space(.)="Off the shelf"]');
    await openShelved(user, 'Saltmarsh Boathouse, finished', 'the Net Loft');
    await user.visit('/traces#library');
    await choose('high');
    await user.reads('Chosen trace', /imported/);
    expect(await violations(user)).toEqual([]);
    await user.press('Bring into this project');
    await user.press('Hide high');
    await user.press('Show high');
    await user.press('Look');
    await user.click('//label[normalize-space(.)="Mark"]');
    const [, db] = await user.reads('In the marked band', /([+\u2212][\d.]+) dB high/);
    expect(number(db!)).toBe(4);
    await user.press('Look');
  });

  it('a sweep of the walk is seen softer and inverted, which its row tells; one press shows it as it was', async () => {
    const first = 'Left at Home spot, This year';
    const find = async () => {
      await user.type('Search traces', 'Left at Home');
      await user.until('it is found', async () => (await rows()).includes(first));
    };
    await find();
    await choose(first);
    await user.press(`Show ${first}`);
    const level = async () => {
      const [, db] = await user.reads('In the marked band', /([+\u2212][\d.]+) dB Left at/);
      return number(db!);
    };
    const was = await level();
    await user.type('Gain of the trace', '-6');
    await user.until('6 dB softer', async () => Math.abs((await level()) - was + 6) < 0.05);
    await user.tick('inverted');
    await user.reads('Traces', /\u22126 dB, inverted/);
    await user.visit('/traces#library');
    await find();
    await choose(first);
    await user.until('it is kept', async () => Math.abs((await level()) - was + 6) < 0.05);
    await user.press('As it was');
    await user.until('as it was', async () => Math.abs((await level()) - was) < 0.05);
    await user.lacks(/\u22126 dB, inverted/);
  });
});
