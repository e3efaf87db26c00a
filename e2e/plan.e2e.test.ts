import { Key, Origin } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { aUser } from './support/aUser';

const user = aUser();

const newProject = async (kind: string) => {
  await user.press('Project');
  await user.press('New project');
  await user.among('Kind of place', kind);
};
const drag = async (xpath: string, x: number, y: number) => {
  const thing = await user.find(xpath);
  await user.driver
    .actions()
    .move({ origin: thing })
    .press()
    .move({ origin: Origin.POINTER, x, y })
    .release()
    .perform();
};
const thing = (name: string) => `//*[@role="button"][@aria-label="${name}"]`;
const value = async (label: string) => (await (await user.field(label)).getAttribute('value'))!.trim();

describe('a place of one’s own', () => {
  it('a new small room with 5.1, to its first sweep on the simulated rig', async () => {
    await user.visit('/');
    await user.sees('Net Loft');
    await newProject('listening room');
    await user.type('Length', '6.2');
    await user.press('Make it');
    await user.reads(
      'What the plan says',
      /62 m³ over 24\.8 m².*\n(.*\n)*.*5\.1: every loudspeaker stands where/,
    );
    await user.click('//a[normalize-space(.)="Rehearse here"]');
    await user.view('Channels');
    await user.type('Test level', '-30');
    await user.click('//a[contains(., "Mic walk")]');
    await user.sees('0 good, of 18');
    await user.press('Take this spot');
    await user.sees('6 good, of 18', 120_000);
  });

  it('an L-shaped hall with raked seats, by mouse and by numbers, and a mirrored hang', async () => {
    await newProject('hall');
    await user.press('Make it');
    await user.reads('What the plan says', /2352 m³ over 336 m²/);
    await user.press('Corners');
    // a corner more in the rear wall and one in the right one, then the notch by numbers
    await user.press('New corner in Right wall');
    await user.reads('What the plan says', /over 336 m²/);
    await user.press('New corner in Rear wall');
    await drag(thing('Corner 4 of the walls'), -60, 0);
    await user.reads('What the plan says', /over (?!336 m²)\d+/);
    await user.press('Table');
    await user.among('Table of', 'Walls');
    // corners: front left, rear left, middle of the rear wall, rear right, middle of the right wall, front right
    const corners: [number, number][] = [
      [0, 0],
      [24, 0],
      [24, 9],
      [16, 9],
      [16, 14],
      [0, 14],
    ];
    for (const [i, [x, y]] of corners.entries()) {
      await user.type(`Corner ${i + 1}, from front`, String(x));
      await user.type(`Corner ${i + 1}, from left`, String(y));
    }
    await user.reads('What the plan says', /over 296 m²/); // 24 x 14 less 8 x 5
    await user.reads('What the plan says', /Audience lies outside/);
    await user.press('Table');
    await user.press('Corners');
    // beside the spots that stand in its middle
    const audience = await user.find(thing('Audience'));
    await user.driver.actions().move({ origin: audience, x: -70, y: 40 }).click().perform();
    await user.type('Corner 2, from the front', '15');
    await user.type('Corner 3, from the front', '15');
    await user.type('Each row higher by', '0.2');
    await user.reads('Audience area', /\d\d\d seats/);
    await user.reads('What the plan says', /^(?![^]*outside)/);
    // a hang on the left, mirrored
    await user.press('Add');
    await user.press('Loudspeaker');
    const name = await user.field('Name of the channel');
    await name.sendKeys(Key.chord(Key.CONTROL, 'a'), 'Hang left', Key.ENTER);
    await user.type('Distance from the front', '4');
    await user.type('Distance from the left', '3');
    await user.type('Height', '5');
    await user.type('Direction', '10');
    await user.pick('Kind of group', 'line with splay');
    await user.reads('Group', /4 boxes on output 8/);
    await user.press('Mirror to the other side');
    await user.until('the copy is chosen', async () => (await value('Name of the channel')) === 'Hang right');
    expect([await value('Distance from the left'), await value('Direction'), await value('Output')]).toEqual([
      '11 m',
      '-10 °',
      '9',
    ]);
    await user.reads('Group', /4 boxes on output 9/);
    await user.press('Undo: mirrored');
    await user.lacks('Hang right');
    // opened, every box goes its own way
    await (await user.find(thing('Hang left'))).click();
    await user.press('Open the group');
    await user.type('Box 2, ahead', '0.25');
    await user.until('it is kept', async () => (await value('Box 2, ahead')) === '0.25 m');
    await user.reads('Group', /4 boxes on output 8/);
  });

  it('things are dragged, stepped by keys, measured from each other, and stay after a reload', async () => {
    const hang = thing('Hang left');
    await (await user.find(hang)).click();
    const before = await value('Distance from the front');
    await drag(hang, 30, 0);
    await user.until('it has moved', async () => (await value('Distance from the front')) !== before);
    const moved = Number.parseFloat(await value('Distance from the front'));
    await (await user.find(hang)).sendKeys(Key.ARROW_RIGHT);
    await user.until(
      'it went on by 10 cm',
      async () => Math.abs(Number.parseFloat(await value('Distance from the front')) - moved - 0.1) < 0.011,
    );
    await user.press('Ruler');
    await (await user.find(thing('Main left'))).click();
    await (await user.find(thing('Main right'))).click();
    // 22 % of the width from each side of 14 m
    await user.sees(/7\.84 m, 22\.8\d ms at 20 °C, 17\.9 dB less than at 1 m/);
    await user.press('Save or print the drawing');
    await user.press('As SVG');
    const svg = (await user.download(/-above\.svg$/)).bytes.toString();
    expect(svg).toContain('Hang left');
    expect(svg).not.toContain('var(');
    await user.visit('/plan');
    await user.find(hang);
  });
});
