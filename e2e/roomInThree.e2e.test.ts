import { expect, it } from 'vitest';
import { aUser, DRAWS_IN_THREE } from './support/aUser';
import { openShelved } from './support/shelf';

const user = aUser(DRAWS_IN_THREE);

const CANVAS = '//canvas[@data-engine]';
/** A picture of the scene alone, once it stands still. */
async function scene(): Promise<string> {
  let last = '';
  await user.until('the scene stands still', async () => {
    const before = last;
    last = await (await user.find(CANVAS)).takeScreenshot();
    return last === before && last.length > 10_000;
  });
  return last;
}

it('a wall that is clicked on in 3D is made of the material at hand, and back by undo', async () => {
  await openShelved(user, 'Saltmarsh Slip Hall', 'the Slip Hall');
  await user.visit('/room-model');
  await user.among('What is asked', 'How long does it ring?');
  const [, before] = await user.reads('What it says', /It rings for ([\d.]+) s/);
  await user.among('Seen from', '3D');
  const plain = await scene();
  await user.choose('What a click does', 'Drape, heavy, draped to half');
  const canvas = await user.find(CANVAS);
  await user.driver.actions().move({ origin: canvas, x: -40, y: 40 }).click().perform();
  await user.until('it rings for less', async () => {
    const [, now] = await user.reads('What it says', /It rings for ([\d.]+) s/);
    return Number(now) < 0.98 * Number(before);
  });
  expect(await scene()).not.toBe(plain);
  // a hand that turns the room paints nothing
  await user.press('Undo: ' + (await undone()));
  await user.reads('What it says', new RegExp(`It rings for ${before!.replace('.', '\\.')} s`));
  await user.driver
    .actions()
    .move({ origin: canvas })
    .press()
    .move({ origin: canvas, x: 90, y: 10 })
    .release()
    .perform();
  await scene();
  await user.reads('What it says', new RegExp(`It rings for ${before!.replace('.', '\\.')} s`));
});

const undone = async () => {
  const label = await (
    await user.find('//button[starts-with(@aria-label, "Undo: ")]')
  ).getAttribute('aria-label');
  return label!.replace('Undo: ', '');
};

it('a way of sound is seen in 3D, the next one by a key, all of them by a press', async () => {
  await user.among('What is asked', 'What arrives?');
  await user.reads('This arrival', /1 of \d+/);
  const direct = await scene();
  await (await user.find('//body')).sendKeys('n');
  await user.reads('This arrival', /2 of \d+/);
  const next = await scene();
  expect(next).not.toBe(direct);
  await user.tick('all of them');
  expect(await scene()).not.toBe(next);
  await user.among('Seen from', 'Above');
  await user.lacks('Drag to turn it');
});
