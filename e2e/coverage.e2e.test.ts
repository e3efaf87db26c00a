import { Key } from 'selenium-webdriver';
import { expect, it } from 'vitest';
import { aUser } from './support/aUser';
import { violations } from './support/axe';
import { openLevelMap, openShelved } from './support/shelf';

const user = aUser();

const figure = async (label: string): Promise<number> => {
  const [, value] = await user.reads('Over the seats', new RegExp(`${label}\\n(-?[\\d.]+) dB`));
  return Number(value);
};
const channel = (name: string) =>
  user.click(`//*[@aria-label="Channels in the map"]//label[normalize-space()="${name}"]`);
/** A channel by its mark in the drawing, so that its numbers are there. */
const choose = (name: string) => user.press(name);
const letGo = () => user.click('//*[name()="text"][contains(., "seen from above")]');

/** The level that is told where the hand points: so many pixels from a thing in the drawing. */
async function pointedAt(name: string, x: number): Promise<number> {
  const thing = await user.find(`//*[@role="button"][@aria-label="${name}"]`);
  await user.driver.actions().move({ origin: thing, x, y: 0 }).perform();
  const drawing = /from the left: (-?[\d.]+) dB|, seat \d+: (-?[\d.]+) dB/;
  const found = drawing.exec(await user.sees(drawing))!;
  return Number(found[1] ?? found[2]);
}

it('the Slip Hall: who hears how much, how far the delay line reaches, and where it meets the mains', async () => {
  await openLevelMap(user);
  const all = await figure('Mean');
  // a signal 6 dB lower is 6 dB lower everywhere
  await user.type('Level of the signal', '-26');
  await user.until('the level to fall', async () => Math.abs((await figure('Mean')) - (all - 6)) < 0.11);
  await user.type('Level of the signal', '-20');
  // how far it reaches
  await choose('Delay line');
  await user.reads('What the map says', /On the dashed line Delay line is 6 dB below its loudest/);
  await user.find('//*[@aria-label="Reach of Delay line"]');
  await letGo();
  // two maps
  await user.press('None of them');
  await user.reads('Over the seats', /Nothing sounds/);
  for (const name of ['Main left', 'Main right', 'Delay line']) await channel(name);
  await user.tick('two maps, A and B');
  await channel('Delay line, A');
  await user.among('Surface', 'over the floor');
  await user.reads('What the map says', /On the dashed line they arrive together/);
  await user.reads('What the map says', /Main left and Main right \(A\) and Delay line \(B\) are/);
  // the delay line tried louder and later: places at which both are equally loud and arrive together
  await user.among('Sources add up', 'as powers');
  await user.type('B louder by', '12');
  await user.type('B later by', '20');
  await user.reads('What the map says', /B is tried 12 dB louder and 20 ms later/);
  const place =
    /At 1 both hold: a place to align them, ([\d.]+) m from the middle of A, ([\d.]+) m from that of B/;
  const [, fromA, fromB] = await user.reads('What the map says', place);
  // the way from the mains takes the 20 ms longer than that from the nearest box of the delay line, which is 5 m from its middle at most
  expect(Number(fromA)).toBeGreaterThan(9);
  expect(Number(fromB)).toBeLessThan(7);
  await user.type('B louder by', '0');
  await user.type('B later by', '0');
  await user.among('Sources add up', 'as waves');
  // by moving the delay line it is heard later: the line moves, the levels of A stay
  const mains = await figure('Mean');
  await choose('Delay line');
  await user.type('Distance from the front', '14');
  await letGo();
  expect(await figure('Mean')).toBeCloseTo(mains, 1);
  await user.tick('two maps, A and B');
});

it('a gradient pair is louder ahead than behind', async () => {
  await user.press('All of them');
  await user.press('None of them');
  await channel('Subs left');
  await user.pick('Frequency', '63 Hz');
  await user.reads('What the map says', /63 Hz, 1\/3 octave/);
  const ahead = await pointedAt('Subs left', 60);
  const behind = await pointedAt('Subs left', -60);
  expect(ahead - behind).toBeGreaterThan(6);
  await user.press('All of them');
});

it('two lines are hung by numbers and splayed until the rows are within 3 dB', async () => {
  await user.press('None of them');
  for (const name of ['Main left', 'Main right']) await channel(name);
  await user.pick('Width of the band', 'octave');
  await user.pick('Frequency', '2 kHz');
  await user.among('Surface', 'audience');
  const lines = ['Main left', 'Main right'];
  for (const name of lines) {
    await choose(name);
    await user.pick('Model', 'Avocet 8');
    await user.pick('Kind of group', 'line with splay');
    await user.type('From box to box', '0.25');
    await user.type('Tilt', '-8');
    await letGo();
  }
  const splay = async (angles: string) => {
    for (const name of lines) {
      await choose(name);
      await user.type('Splay angles in degrees, from the top down', angles);
      await letGo();
    }
  };
  const rowsApart = () => figure('From row to row');
  await splay('0 0 0 0 0');
  await user.until('rows that differ', async () => (await rowsApart()) > 6);
  const straight = await figure('Standard deviation');
  await splay('1 2 4 6 8');
  await splay('1 2 1 0 20');
  await user.until('rows within 3 dB', async () => (await rowsApart()) < 3);
  expect(await figure('Standard deviation')).toBeLessThan(straight - 2);
  await user.pick('Width of the band', '1/3 octave');
});

it('a seat by itself: what arrives there over frequency, and levels against it', async () => {
  await user.press('All of them');
  await user.pick('Place that is looked at', 'Stalls left, row 2, seat 2');
  await user.find('//*[@aria-label="Pinned place"]');
  await user.reads('At one place', /Stalls left, row 2, seat 2[^]*all of them/);
  const mean = await figure('Mean');
  await user.pick('Levels shown', 're pinned place');
  const seat = Number(
    (await user.reads('What the map says', /(-?[\d.]+) dB re Stalls left, row 2, seat 2 on the mean/))[1],
  );
  expect(await figure('Mean')).toBeCloseTo(seat, 1);
  expect(Math.abs(seat)).toBeLessThan(Math.abs(mean));
  await user.pick('Levels shown', 'dB SPL');
  // the drawing is pressed: another place, and then none
  const drawing = await user.find('//*[@role="img"][@aria-label="Pinned place"]');
  await user.driver.actions().move({ origin: drawing, x: 70, y: 4 }).click().perform();
  await user.until('another place', async () => !/row 2, seat 2/.test(await user.textOf('At one place')));
  await user.press('Look at no place');
  await user.until(
    'no place',
    async () => (await user.driver.findElements({ xpath: '//*[@aria-label="At one place"]' })).length === 0,
  );
});

it('an upright plane through a loudspeaker is seen from the side, one channel after the other by a key', async () => {
  await user.among('Surface', 'upright');
  await user.find('//*[name()="text"][contains(., "seen from the side")]');
  await user.pick('Through', 'Main left');
  await user.find('//*[name()="image"][@aria-label="Level map"]');
  const all = await figure('Mean');
  const body = await user.find('//body');
  await body.sendKeys('n');
  await user.reads('What the map says', /Main left alone/);
  await user.until('less of it', async () => (await figure('Mean')) < all - 0.5);
  await body.sendKeys('n');
  await user.reads('What the map says', /Main right alone/);
  await body.sendKeys(Key.chord(Key.SHIFT, 'n'), Key.chord(Key.SHIFT, 'n'));
  await user.until('all again', async () => Math.abs((await figure('Mean')) - all) < 0.11);
  expect(await violations(user)).toEqual([]);
  // across: a plane that goes from side to side is seen from the seats
  await user.type('Direction of the plane', '90');
  await user.find('//*[name()="text"][contains(., "seen from the seats")]');
  await user.among('Surface', 'audience');
  await user.find('//*[name()="text"][contains(., "seen from above")]');
});

it('A-weighted: a first look, then the exact sum of thirty thirds', async () => {
  await user.pick('Width of the band', 'A-weighted');
  await user.reads('What the map says', /A-weighted: [\d.]+ dB SPL/);
  await user.until(
    'the exact map',
    async () => !(await user.textOf('What the map says')).includes('A first look'),
  );
  await user.pick('Width of the band', '1/3 octave');
});

it('a loudspeaker in the wall is told', async () => {
  await choose('Fill left');
  await user.type('Distance from the front', '0.01');
  await letGo();
  await user.reads('What the map says', /Fill left stands in a wall/);
  await user.click('//button[starts-with(@aria-label, "Undo: position")]');
  await user.until(
    'no word of it',
    async () => !(await user.textOf('What the map says')).includes('in a wall'),
  );
});

it('a loudspeaker is looked at: what it is, its polars, its beam over frequency', async () => {
  await choose('Fill left');
  await user.press('How it radiates');
  await user.reads('What it is', /Coaxial: .* 114 dB at the most.*Worked out from its radiators/);
  const beam = async () => Number((await user.reads('Figures of the polar', /over (\d+)° across/))[1]);
  await user.reads('Figures of the polar', /1 kHz/);
  const wide = await beam();
  const slider = await user.find('//*[@role="slider"][@aria-label="Frequency of the polar"]');
  await slider.sendKeys(...Array<string>(9).fill(Key.ARROW_RIGHT));
  await user.reads('Figures of the polar', /8 kHz/);
  expect(await beam()).toBeLessThan(wide);
  expect(await violations(user)).toEqual([]);
  await user.press('Close');
  await letGo();
});

it('the map is on after a reload, and its settings with it', async () => {
  await user.visit('/plan');
  await user.reads('Level map settings', /direct sound only/);
  await user.reads('Over the seats', /181 seats/);
  expect(await violations(user)).toEqual([]);
  await user.press('Level map');
  await user.reads('What the plan says', /seats/);
});

it('filters that were worked out from measurements are in the map, and can be left out', async () => {
  await openShelved(user, 'Saltmarsh Boathouse, finished', 'the Net Loft');
  await user.visit('/plan');
  await user.press('Level map');
  await user.reads('Surface and air', /With its filters/);
  await user.pick('Place that is looked at', 'Home spot');
  await user.pick('Levels shown', 'dB SPL');
  const level = async () =>
    Number((await user.reads('What the map says', /: (-?[\d.]+) dB SPL on the mean/))[1]);
  const corrected = await level();
  await user.tick('With its filters');
  await user.until('another level', async () => Math.abs((await level()) - corrected) > 0.2);
});
