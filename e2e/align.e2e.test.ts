import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Key } from 'selenium-webdriver';
import { expect, it } from 'vitest';
import { aUser } from './support/aUser';
import { violations } from './support/axe';
import { openShelved } from './support/shelf';

const user = aUser();

const number = (text: string) => Number(text.replace('\u2212', '-').replace(/[^\d.-]/g, ''));
const fieldOf = async (label: string) =>
  number((await (await user.field(label)).getAttribute('value')) ?? '');
/** The delays that are offered, ms, and what they reach, %; best first. */
const ways = async () =>
  [
    ...(await user.textOf('Ways to bring them together')).matchAll(/\d\. (\u2212?[\d.]+) ms[^%]*?(\d+) %/g),
  ].map((m) => ({ ms: number(m[1]!), percent: Number(m[2]) }));
const found = async () => {
  await user.until('ways to bring them together', async () => (await ways()).length > 0);
  return ways();
};
const tryWay = (n: number) =>
  user.click(`//*[@role="group"][@aria-label="Ways to bring them together"]/button[${n}]`);
const delayIs = (ms: number, within = 0.011) =>
  user.until(`a delay of ${ms} ms`, async () => Math.abs((await fieldOf('Delay')) - ms) < within);
const newStep = async (first: string, second: string) => {
  await user.choose('Stands still', first);
  await user.choose('Is brought to it', second);
  await user.press('Bring them together');
};
/** Sum efficiency at each spot, %. */
const overSpots = async () =>
  [...(await user.textOf('Over the spots')).matchAll(/^(\d+)$/gm)].map((m) => Number(m[1]));

it('a main and its subwoofer, swept at three spots: found, tried, compared by key, kept, undone, used in Correct', async () => {
  await user.visit('/');
  await openShelved(user, 'Saltmarsh Boathouse, finished', 'the Net Loft');
  await user.visit('/align');
  await newStep('Left', 'Sub 1');
  await user.reads('What it says', /Sub 1 is .* at [\d.]+ Hz/);
  const [best, second] = await found();
  const before = await overSpots();
  expect(before).toHaveLength(3);
  await tryWay(1);
  await delayIs(best!.ms);
  await user.until('more at the spots', async () => {
    const now = await overSpots();
    const mean = (of: number[]) => of.reduce((a, b) => a + b, 0) / of.length;
    return mean(now) >= mean(before) && Math.abs(mean(now) - best!.percent) < 2;
  });
  expect(await violations(user)).toEqual([]);
  // compared by key, and back
  await user.click('//h2[contains(., "Ways to bring")]');
  await user.driver.actions().sendKeys('2').perform();
  await delayIs(second!.ms);
  await user.driver.actions().sendKeys('0').perform();
  await delayIs(0);
  await user.driver.actions().sendKeys('1').perform();
  await delayIs(best!.ms);
  await user.press('Keep this setting');
  // the phase in the hand: one degree up is earlier by that part of a period
  const handle = await user.slider('Delay of Sub 1');
  await user.keys(handle, Key.chord(Key.SHIFT, Key.ARROW_UP));
  await user.until('another delay', async () => Math.abs((await fieldOf('Delay')) - best!.ms) > 0.011);
  await user.click('//button[starts-with(@aria-label, "Undo: delay of Sub 1")]');
  await delayIs(best!.ms);
  await user.type('Delay', '0');
  await user.press('Bring back');
  await delayIs(best!.ms);
  await user.press('Use in Correct');
  await user.sees('Variant Left with Sub 1 has it');
  await user.driver.navigate().refresh();
  await delayIs(best!.ms);
  await user.click('//nav//a[@href="/correct"]');
  await user.sees('Left with Sub 1');
  await user.click(
    '//*[@role="tab" or @role="radio" or self::label or self::button][normalize-space(.)="Levels and delays"]',
  );
  // who would have to come earlier lets all the others wait
  const [first, other] = best!.ms < 0 ? ['Left', 'Sub 1'] : ['Sub 1', 'Left'];
  await user.until(
    'its delays',
    async () =>
      Math.abs(
        (await fieldOf(`Delay of ${first}`)) - (await fieldOf(`Delay of ${other}`)) - Math.abs(best!.ms),
      ) < 0.02,
  );
});

it('an all-pass and a third source: heard together, and in Correct as sections, taken away and back', async () => {
  await user.click('//nav//a[@href="/align"]');
  await user.choose('One more source', 'Sub 2');
  await user.click('//section[@aria-label="Sources"]//button[@aria-pressed][contains(., "Sub 2")]');
  await user.reads('Setting', /Sub 2/);
  await user.press('All-pass');
  await user.reads('Keep and hand on', /the all-passes as sections/);
  await user.press('Use in Correct');
  await user.sees(/Variant Left with Sub \d has it/);
  await user.press('Hear them');
  await user.sees(/through Left, Sub 1 and Sub 2, as one microphone/);
  await user.click('//nav//a[@href="/correct"]');
  await user.click('//*[self::label or self::button][normalize-space(.)="Levels and delays"]');
  await user.reads('Levels and delays', /all-pass 80 Hz, Q 0\.7/);
  await user.press('Take away the all-passes of Sub 2');
  await user.until('none', async () => !/all-pass 80/.test(await user.textOf('Levels and delays')));
  await user.press('Undo: all-passes of Sub 2 taken away');
  await user.reads('Levels and delays', /all-pass 80 Hz, Q 0\.7/);
  expect(await violations(user)).toEqual([]);
});

/** Text of a Linkwitz-Riley filter of the fourth order, so late: frequency, level and phase. */
function crossed(hz: number, isHigh: boolean, lateS: number): string {
  const rows: string[] = [];
  for (let f = 20; f < 20_500; f *= 2 ** (1 / 48)) {
    const x = f / hz;
    // 1 / (s^2 + sqrt(2) s + 1)^2 at s = i x
    const [a, b] = [1 - x * x, Math.SQRT2 * x];
    const level = 20 * Math.log10((isHigh ? x ** 4 : 1) / (a * a + b * b));
    const phase = (-2 * Math.atan2(b, a) * 180) / Math.PI - 360 * f * lateS;
    rows.push(`${f.toFixed(3)}\t${level.toFixed(4)}\t${(phase - 360 * Math.round(phase / 360)).toFixed(3)}`);
  }
  return `Freq\tdB\tdeg\n${rows.join('\n')}`;
}

/** Until a trace is stored: its name stands in the dialog before. */
const inTheLibrary = (name: string) => user.find(`//button[@aria-pressed][contains(@title, "${name}")]`);

it('six imported traces: a main, a subwoofer with four variants of its processing, a target', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'align-'));
  const files: Record<string, string> = {
    'Main.txt': crossed(90, true, 0.007),
    'Sub to 60.txt': crossed(60, false, 0.002),
    'Sub to 90.txt': crossed(90, false, 0.002),
    'Sub to 110.txt': crossed(110, false, 0.002),
    'Sub to 220.txt': crossed(220, false, 0.002),
    'Goal.txt': `Freq\tdB\n${[20, 100, 1000, 20_000].map((f) => `${f}\t-6`).join('\n')}`,
  };
  await user.visit('/traces#library');
  await user.chooseFile(
    'Files to import',
    Object.entries(files)
      .map(([name, text]) => {
        writeFileSync(join(folder, name), text);
        return join(folder, name);
      })
      .join('\n'),
  );
  await user.press('Import 6 traces');
  await inTheLibrary('Sub to 220');
  await user.visit('/align');
  await user.press('Add a step');
  await newStep('Main', 'Sub to 90');
  // (1) levels against the target
  await user.choose('Target', 'Goal');
  for (const [source, gain] of [
    ['Main', -6],
    ['Sub to 90', -6],
  ] as const) {
    await user.click(`//section[@aria-label="Sources"]//button[contains(., "${source}")]`);
    await user.press('Onto the target');
    await user.until('it lies on it', async () => Math.abs((await fieldOf('Gain')) - gain) < 1);
    await user.type('Gain', String(gain));
  }
  await user.reads('What it says', /in phase their sum lies within 0\.\d dB of the target/);
  for (const [variant, says] of [
    ['Sub to 60', /leave a gap/],
    ['Sub to 220', /overlap too far: in phase their sum is [3-6]\.\d dB above/],
    ['Sub to 110', /in phase their sum lies within [0-3]\.\d dB/],
  ] as const) {
    await user.choose('One more variant', variant);
    await user.reads('What it says', says);
  }
  await user.choose('Variant of the processing', 'Sub to 90');
  // (2), (3): they share an octave or so around 90 Hz, and the subwoofer comes 5 ms early
  // equal at 90; LR4 slopes part by 10 dB at 90 times or over 10 to the power 10/80
  const part = 10 ** (10 / 80);
  await user.until('the band that both share', async () => {
    const said = /From ([\d.]+) Hz to ([\d.]+) Hz both are within 10 dB/.exec(
      await user.textOf('What it says'),
    );
    const near = (read: string | undefined, hz: number) => Math.abs(Number(read) - hz) < 5;
    return near(said?.[1], 90 / part) && near(said?.[2], 90 * part);
  });
  // (4), (5)
  await user.until('ways for this variant', async () => {
    const [best] = await ways();
    return best !== undefined && Math.abs(best.ms - 5) < 0.05 && best.percent === 100;
  });
  await tryWay(1);
  await user.reads('What it says', /Sub to 90 is in time.*Next to nothing is lost/);
  await user.reads('What it says', /add up to 100 %, \u2212?0\.0 dB short/);
  // proven by what was measured of both together: in time the two are all-pass, as flat as each is plain
  const flat = [20, 50, 100, 500, 1000, 20_000].map((f) => `${f}\t-6\t0`).join('\n');
  writeFileSync(join(folder, 'Both.txt'), `Freq\tdB\tdeg\n${flat}`);
  await user.visit('/traces#library');
  await user.chooseFile('Files to import', join(folder, 'Both.txt'));
  await user.press('Import 1 trace');
  await inTheLibrary('Both');
  await user.visit('/align');
  await user.click('//*[@role="tab"][contains(., "Main with Sub to 90")]');
  await user.choose('Measured together', 'measured: Both');
  await user.reads('What it says', /Both is as predicted, within 0\.[01] dB/);
  await user.click('//section[@aria-label="Setting"]//label[normalize-space(.)="inverted"]');
  await user.reads('What it says', /Most is lost at/);
  await user.reads('What it says', /Both is not as predicted: \d/);
  await user.press('Undo: polarity');
  await user.reads('What it says', /Next to nothing is lost/);
  await user.reads('Keep and hand on', /no channels of this place/);
});

it('from distances alone: two metres further is 5.8 ms less to wait, told as an estimate', async () => {
  await user.press('Add a step');
  await newStep('Dunlin 6, by its distance', 'Eider 10, by its distance');
  await user.reads('What it says', /estimate in the open/);
  await user.type('Distance', '5');
  const [at5] = await found();
  await user.type('Distance', '7');
  await user.until(
    'another way',
    async () => (await ways())[0] !== undefined && (await ways())[0]!.ms !== at5!.ms,
  );
  const [at7] = await ways();
  expect(at5!.ms - at7!.ms).toBeCloseTo(2000 / 343.2, 0);
});

it('three at once: a subwoofer on each side of a main, brought to it in one press and undone in one', async () => {
  await user.press('Add a step');
  await newStep('Main', 'Sub to 90');
  await user.choose('One more source', 'Sub to 110');
  await user.press('All at once');
  // both subwoofers are 5 ms early
  await user.sees(/All together reach (9[5-9]|100) %/);
  await delayIs(5, 0.4);
  await user.click('//section[@aria-label="Sources"]//button[contains(., "Sub to 110")]');
  // the higher low-pass delays its lows by less: 2 sqrt(2) / (2 pi f) of each
  await delayIs(5 + ((1000 * Math.SQRT2) / Math.PI) * (1 / 90 - 1 / 110), 0.2);
  await user.press('Undo: all brought together');
  await delayIs(0);
  await user.press('Without Sub to 110');
  await user.reads('Sources', /choose the one to move/);
});

it('what cannot be judged is said, with what to do', async () => {
  await user.click('//*[@role="tab"][contains(., "Dunlin 6 with Eider 10")]');
  await user.type('Gain', '-70');
  await user.reads(
    'What it says',
    /nowhere within 10 dB of each other: \d+ dB apart at best.*set their levels first/,
  );
  await user.press('Add a step');
  await newStep('Main', 'Goal');
  await user.sees('Goal has levels, but no phase');
});
