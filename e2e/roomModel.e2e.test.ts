import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { aUser } from './support/aUser';
import { violations } from './support/axe';
import { openShelved } from './support/shelf';

const user = aUser();

const rings = async () =>
  Number((await user.reads('What it says', /(?:It rings for|Measured .* rings for) ([\d.]+) s/))[1]);
const until = (what: string, holds: (seconds: number) => boolean) =>
  user.until(what, async () => holds(await rings()));
const shareAt = async (label: string) =>
  Number(((await (await user.field(label)).getAttribute('value')) ?? '').replace(/[^\d.]/g, ''));

it('the Slip Hall by its surfaces: its time by the formula, against what is wanted', async () => {
  await openShelved(user, 'Saltmarsh Slip Hall', 'the Slip Hall');
  await user.visit('/room-model');
  // 24 x 13 m, walls of 5 m over a floor that rises by 0.72 m, a ridge along it at 8.5 m
  const volume = 24 * 13 * (5 - 0.36) + (24 * 13 * 3.5) / 2;
  const [, cubic] = await user.reads('The room', /([\d,]+) m³/);
  expect(Math.abs(Number(cubic) - volume)).toBeLessThan(1);
  const slope = 2 * 24 * Math.hypot(6.5, 3.5);
  const [floor, left, stage, doors] = [
    13 * 24 * Math.hypot(1, 0.03),
    24 * (5 - 0.36),
    13 * 5 + (13 * 3.5) / 2,
    13 * (5 - 0.72) + (13 * 3.5) / 2,
  ];
  const surface = slope + floor + 2 * left + stage + doors;
  // at 500 Hz and 1 kHz, as the demo has them; at 18 degrees C and 60 %, the air swallows 0.0027 and 0.0048 dB per metre
  const time = (
    of: { roof: number; floor: number; brick: number; stage: number; doors: number },
    airDb: number,
  ) => {
    const area =
      slope * of.roof + floor * of.floor + 2 * left * of.brick + stage * of.stage + doors * of.doors;
    const air = (4 * volume * airDb) / (10 * Math.log10(Math.E));
    const c = 331.3 * Math.sqrt(1 + 18 / 273.15);
    return (55.262 * volume) / c / (-surface * Math.log(1 - area / surface) + air);
  };
  const wanted =
    (time({ roof: 0.18, floor: 0.26, brick: 0.07, stage: 0.12, doors: 0.12 }, 0.0027) +
      time({ roof: 0.17, floor: 0.31, brick: 0.08, stage: 0.11, doors: 0.1 }, 0.0048)) /
    2;
  expect(Math.abs((await rings()) / wanted - 1)).toBeLessThan(0.01);
  await user.reads('What it says', /longer than is wanted/);
  await user.reads('What it says', /Roof, timber on trusses would help most/);
  expect(await violations(user)).toEqual([]);
});

it('a wall chosen in the drawing gets drapes, and it rings shorter; undone, it rings as before', async () => {
  const before = await rings();
  await user.click('//*[@role="button"][@aria-label="Folding doors, timber"]');
  await user.reads('Chosen surface', /Folding doors, timber/);
  await user.choose('What Folding doors, timber is made of', 'Drape, heavy, draped to half');
  await until('a shorter time', (s) => s < before);
  await user.until('its shares', async () => (await shareAt('Swallows at 1k Hz')) === 0.72);
  await user.sees('1 of 6 surfaces');
  // its own numbers are typed
  await user.type('Swallows at 1k Hz', '0.9');
  await user.reads('Chosen surface', /by its own numbers/);
  await user.click('//button[starts-with(@aria-label, "Undo: Folding doors, timber: absorption")]');
  await user.reads('Chosen surface', /Drape, heavy/);
  await user.driver.navigate().refresh();
  await until('as it was left', (s) => s < before);
  await user.click('//button[starts-with(@aria-label, "Undo: Folding doors, timber: Drape")]');
  await until('as before', (s) => s === before);
});

it('materials of ones own come from a table and go into one; what is no table is told with its line', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'materials-'));
  const file = (name: string, text: string) => {
    writeFileSync(join(folder, name), text);
    return join(folder, name);
  };
  await user.chooseFile('Table of materials', file('wrong.txt', 'Sailcloth\t0.1\t0.2'));
  await user.sees('Line 1 has 2 coefficients');
  await user.chooseFile('Table of materials', file('own.txt', 'Sailcloth\t0.1\t0.2\t0.4\t0.5\t0.55\t0.6'));
  await user.sees('1 of our own');
  await user.choose('What Roof, timber on trusses is made of', 'Sailcloth');
  await user.click('//table[@aria-label="Surfaces"]//button[normalize-space(.)="Roof, timber on trusses"]');
  await user.until('its shares', async () => (await shareAt('Swallows at 1k Hz')) === 0.5);
  await user.press('Materials');
  await user.click('//*[@role="menuitem"][contains(., "All as a text table")]');
  const table = (await user.download(/^materials.*\.txt$/)).bytes.toString('utf8');
  expect(table).toMatch(/^Sailcloth\t0\.1\t0\.1\t0\.2\t0\.4\t0\.5\t0\.55\t0\.6\t0\.6$/m);
  await user.type('Wanted time', '0.6');
  await user.reads('What it says', /longer than is wanted|as is wanted|shorter than is wanted/);
});

it('the Net Loft as it was measured stands beside what its surfaces say', async () => {
  await openShelved(user, 'Saltmarsh Boathouse, finished', 'the Net Loft');
  await user.visit('/room-model');
  // its floor and its rear wall swallow most: then a room rings longer than statistics of its surfaces say, as rays of a run tell too
  const said = await user.reads('What it says', /Measured at 3 spots .*(?:within (\d+) %|, (\d+) % longer)/);
  expect(Number(said[1] ?? said[2])).toBeLessThanOrEqual(15);
});

it('its modes are listed as the box has them, and drawn over the floor', async () => {
  // 5.6 x 4.1 x 2.6 m at 20 degrees
  const c = 331.3 * Math.sqrt(1 + 20 / 273.15);
  await user.reads('Modes', new RegExp(`${(c / 2 / 5.6).toFixed(1)} Hz front to back`));
  await user.reads('Modes', new RegExp(`${(c / 2 / 4.1).toFixed(1)} Hz side to side`));
  const cells = async () => (await user.driver.findElements({ css: 'svg g rect[opacity]' })).length;
  const before = await cells();
  await user.click('//*[@role="group"][@aria-label="Modes"]/button[1]');
  await user.until('the mode over the floor', async () => (await cells()) > before + 500);
  expect(await violations(user)).toEqual([]);
  await user.click('//*[@role="group"][@aria-label="Modes"]/button[1]');
  await user.until('no mode', async () => (await cells()) === before);
});

it('of a room that is no box its modes are worked out: with one more corner in a wall they stay what they were', async () => {
  await user.visit('/plan');
  await user.press('Corners');
  await user.press('New corner in Right wall');
  await user.visit('/room-model');
  const c = 331.3 * Math.sqrt(1 + 20 / 273.15);
  const modes = await user.reads('Modes', new RegExp(`${(c / 2 / 5.6).toFixed(1)} Hz over the plan`));
  expect(modes).toBeTruthy();
  await user.reads('Modes', new RegExp(`${(c / 2 / 4.1).toFixed(1)} Hz over the plan`));
  await user.reads('Modes', new RegExp(`${Number((c / 2 / 2.6).toPrecision(3))} Hz floor to ceiling`));
  await user.click('//button[starts-with(@aria-label, "Undo: ")]');
});

it('what arrives: stepped along by keys, the floor told as the image has it, the late one named', async () => {
  await openShelved(user, 'Saltmarsh Slip Hall', 'the Slip Hall');
  await user.visit('/room-model');
  await user.click('//label[normalize-space(.)="What arrives?"]');
  await user.choose('Source', 'omnidirectional, where Main left is');
  await user.reads('What it says', /The direct sound, from ahead/);
  await user.choose('Faces met at most', 'one face met');
  await user.reads('This arrival', /1 of 8/);
  // from the mix place to the main, and to its image in the floor, which rises by 3 cm to a metre
  const [source, ear] = [
    { x: 3.9, y: 2.4, z: 4.3 },
    { x: 17.8, y: 6.5, z: 1.75 },
  ];
  const over = (p: typeof source) => (p.z - 0.03 * p.x) / Math.hypot(1, 0.03);
  const direct = Math.hypot(ear.x - source.x, ear.y - source.y, ear.z - source.z);
  // a mirror moves the source by twice its height over it: the way grows by both heights
  const mirrored = Math.sqrt(direct ** 2 + 4 * over(source) * over(ear));
  const c = 331.3 * Math.sqrt(1 + 18 / 273.15);
  const later = ((1000 * (mirrored - direct)) / c).toFixed(1);
  // out of the list, which takes keys for itself
  await user.click('//aside[@aria-label="What it says"]/h2');
  await user.driver.actions().sendKeys('n').perform();
  await user.reads('What it says', new RegExp(`${later} ms after it .*: off Slipway, seats on concrete`));
  await user.driver.actions().sendKeys('b').perform();
  await user.reads('This arrival', /1 of 8/);
  expect(await violations(user)).toEqual([]);
  await user.choose('Faces met at most', 'up to 3 faces met');
  await user.reads('What it says', /The loudest after 50 ms comes at [\d.]+ ms with/);
  await user.press('Show it');
  await user.lacks('Show it');
  // what treating the face that swallows least would do, worked out anew
  await user.reads('What it says', /Swallowing 70 % .* would take it from −\d/);
  // only those of one surface, seen over time and around the head
  await user.choose('Shown', 'those off Folding doors, timber');
  await user.reads('What it says', /off .*Folding doors, timber/);
  await user.find('//*[@role="img"][@aria-label="Where arrivals come from"]');
  await user.choose('Shown', 'those of one face');
  await user.reads('This arrival', /1 of 7/);
  expect(await violations(user)).toEqual([]);
});
