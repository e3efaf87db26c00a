import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { aligning } from '../support/aligning';
import { aUser } from '../support/aUser';
import { violations } from '../support/axe';
import { openShelved } from '../support/shelf';

const user = aUser();

const { number, fieldOf, inGroup, source, step, look, aWay } = aligning(user);

it('the whole system of the Slip Hall, in order: what the plan holds, gradient pairs by themselves first', async () => {
  await openShelved(user, 'Saltmarsh Slip Hall', 'the Slip Hall');
  await user.visit('/traces#library');
  const folder = mkdtempSync(join(tmpdir(), 'box-'));
  const rows = (db: number) =>
    'Freq\tdB\tdeg\n' + [20, 60, 200, 600, 2000].map((f) => `${f}\t${db}\t0`).join('\n');
  const paths = ['box ahead', 'box behind'].map((name) => join(folder, `${name}.txt`));
  paths.forEach((path, i) => writeFileSync(path, rows(-6.02 * i)));
  await user.chooseFile('Files to import', paths.join('\n'));
  await user.press('Import 2 traces');
  await user.sees('box behind');
  await user.visit('/align');
  const order = await user.textOf('The whole system');
  const at = (name: string) => order.indexOf(name);
  expect(at('Main left and Main right')).toBeGreaterThan(0);
  expect(at('Subs left and Subs right')).toBeGreaterThan(at('Main left and Main right'));
  expect(at('Fill left and Fill right')).toBeGreaterThan(at('Subs left and Subs right'));
  expect(at('Delay line')).toBeGreaterThan(at('Fill left and Fill right'));
  expect(at('Under the gallery')).toBeGreaterThan(at('Delay line'));
  await user.press('Pattern of Subs left');
  await user.reads('Figures of the pattern', /ahead over behind/);
  const ahead = async () => number((await user.reads('Figures of the pattern', /: (\u2212?[\d.]+) dB/))[1]!);
  const found = await ahead();
  expect(found).toBeGreaterThan(20);
  // 0.9 m at 18 degrees C are 2.63 ms; a hypercardioid waits a third of it, and lets 6 dB less than that behind
  const hyper = await user.find(
    '//select[@aria-label="Pattern wanted"]/option[contains(., "hypercardioid")]',
  );
  expect(await hyper.getText()).toMatch(/silent at 109°: 0\.88 ms/);
  await hyper.click();
  await user.until('its pattern', async () => Math.abs((await ahead()) - 6) < 0.5);
  expect(await violations(user)).toEqual([]);
  // boxes that were measured 6 dB softer behind them than ahead: that comes on top of what the pair does, sin over sin
  const half = (ms: number) => Math.sin((Math.PI * 63 * ms) / 1000);
  const pair = 20 * Math.log10(half(900 / 342.1 + 0.88) / half(900 / 342.1 - 0.88));
  await user.among('One box by', 'two traces');
  await user.choose('Measured ahead', 'box ahead');
  await user.choose('Measured behind', 'box behind');
  await user.until('its pattern by traces', async () => Math.abs((await ahead()) - pair - 6.02) < 0.2);
  await user.choose('Measured behind', 'box ahead');
  await user.until('its pattern as of points', async () => Math.abs((await ahead()) - pair) < 0.2);
  expect(await violations(user)).toEqual([]);
  await user.click('//button[contains(@class, "Modal-close")]');
  await user.press(`Undo: group of Subs left`);
  await user.press('Make these 4 steps');
});

it('mains with subwoofers: crossovers, a place where both are equally loud and arrive together, brought together there', async () => {
  await user.reads('What it says', /By the models of the loudspeakers in the open/);
  await source('Subs left and Subs right');
  await user.pick('Low-pass', 'Linkwitz-Riley 24 dB/oct');
  await user.type('Low-pass frequency', '90');
  await user.type('Gain', '-8');
  await source('Main left and Main right');
  await user.pick('High-pass', 'Linkwitz-Riley 24 dB/oct');
  await user.type('High-pass frequency', '90');
  await source('Subs left and Subs right');
  await look('Where');
  await user.reads('Places to align at', /1\. equally loud/);
  await inGroup('Places to align at', 1);
  await user.reads('What it says', /at the place to align/);
  await aWay();
  await inGroup('Ways to bring them together', 1);
  await user.reads('What it says', /they add up to (99|100) %/);
  expect(await violations(user)).toEqual([]);
  // seats are told in the plan, and one of them is a click away
  const seat = await user.find('//*[@role="button"][contains(@aria-label, "Stalls left, row 5")]');
  expect(await seat.getAttribute('aria-label')).toMatch(/\d+ %, [\d.]+ dB lost/);
  await seat.click();
  await user.reads('What it says', /at Stalls left, row 5/);
});

it('other crossovers of the processor set both sides at once', async () => {
  await user.click('//label[contains(., "other crossovers too")]');
  await user.find('//*[@role="group"][@aria-label="Other crossovers"]/button');
  const [, hz] = await user.reads('Other crossovers', /(\d+) Hz, /);
  await inGroup('Other crossovers', 1);
  await user.until('the low-pass', async () => (await fieldOf('Low-pass frequency')) === Number(hz));
  await source('Main left and Main right');
  await user.until('the high-pass', async () => (await fieldOf('High-pass frequency')) === Number(hz));
  await user.press('Undo: crossover');
  await user.until('as it was', async () => (await fieldOf('High-pass frequency')) === 90);
});

it('the delay line comes after what is before it; a step knows when one that it rests on was set otherwise', async () => {
  await step('Delay line');
  await source('Delay line');
  await user.reads('Who is heard first', /Delay line is heard [\d.]+ ms before Mains, subwoofers and fills/);
  const [, led] = await user.reads('Who is heard first', /At (\d+) of \d+ places/);
  await user.type('Offset', '15');
  await user.press('Come so much later here');
  await user.reads('Who is heard first', /Delay line is heard 15\.0 ms after/);
  await user.until(
    'more places are led',
    async () =>
      Number((/At (\d+) of \d+ places/.exec(await user.textOf('Who is heard first')) ?? [])[1]) > Number(led),
  );
  await user.lacks('was set otherwise since');
  await step('Mains with subwoofers');
  await source('Subs left and Subs right');
  await user.type('Gain', '-9');
  await step('Delay line');
  await user.reads('What it says', /Mains with subwoofers was set otherwise since this step was set/);
  await user.press('Use in Correct');
  await user.sees('Variant Delay line to what is before has it: the level map in Plan shows it.');
  await user.find('//button[contains(@aria-label, "Undo: Delay line to what is before used in Correct")]');
});
