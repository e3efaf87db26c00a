import { Key } from 'selenium-webdriver';
import { expect, it } from 'vitest';
import { aUser, DRAWS_IN_THREE } from './support/aUser';
import { User } from './support/user';

const user = aUser(DRAWS_IN_THREE);

/** A picture of the scene alone, once it stands still. */
async function scene(): Promise<string> {
  let last = '';
  await user.until('the scene stands still', async () => {
    const before = last;
    last = await (await user.find('//canvas')).takeScreenshot();
    return last === before;
  });
  return last;
}

it('a place in 3D shares what is chosen, is turned, and is seen from the home spot', async () => {
  await user.visit('/plan');
  await user.press('Sub 2');
  await user.among('Seen from', '3D');
  const outside = await scene();
  // a blank canvas of this size is a few kilobytes
  expect(outside.length).toBeGreaterThan(20_000);
  await user.reads('Channel', /fitted/);
  const canvas = await user.find('//canvas');
  await user.driver
    .actions()
    .move({ origin: canvas })
    .press()
    .move({ origin: canvas, x: 120, y: 30 })
    .release()
    .perform();
  const turned = await scene();
  expect(turned).not.toBe(outside);
  await user.press('From the home spot');
  const home = await scene();
  expect(home).not.toBe(turned);
  // one walks by keys, and what is chosen stays where it is
  const before = await user.textOf('What the plan says');
  await user.driver.actions().sendKeys(Key.ARROW_LEFT, Key.ARROW_LEFT, Key.PAGE_UP).perform();
  expect(await scene()).not.toBe(home);
  expect(await user.textOf('What the plan says')).toBe(before);
  await user.find('//button[@aria-label="Undo"]');
  await user.press('From the home spot');
  await user.press('Fit');
  await user.among('Seen from', 'Above');
  await user.sees('seen from above');
  await user.reads('Loudspeaker', /Loudspeaker/);
});

it('says so where the browser draws no 3D', async () => {
  const plain = await User.at(user.url, { args: ['--disable-3d-apis'] });
  try {
    await plain.visit('/plan');
    await plain.among('Seen from', '3D');
    await plain.sees(/does not draw in 3D here/);
  } finally {
    await plain.close();
  }
});
