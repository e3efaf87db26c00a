import { expect, it } from 'vitest';
import { aUser } from '../support/aUser';

const user = aUser();
const stone = (name: string) => `//nav[@aria-label="Workbenches"]//a[i[.="${name}"]]`;
const step = async (name: string) => {
  await user.click(stone(name));
  await user.find(`//main[@aria-label="${name}"]`);
};
/** Traces that the project holds by now, as its stone tells. */
const traces = async () =>
  Number(/(\d+) traces?/.exec(await (await user.find(stone('Traces'))).getText())?.[1] ?? 0);

it('a walk goes on while one steps from stone to stone, whichever workbench is looked at, and the page stays', async () => {
  await user.visit('/mic-walk');
  await user.driver.executeScript('window.isTheSamePage = true');
  await user.press('Take all that are left');
  await user.until('the walk has begun', async () => (await traces()) > 1);
  await step('Traces');
  const before = await traces();
  expect(before).toBeLessThan(28);
  await user.until('it goes on', async () => (await traces()) >= before + 2);
  await step('Rig');
  await step('Mic walk');
  await user.sees('28 good, of 28');
  expect(await user.driver.executeScript('return window.isTheSamePage')).toBe(true);
});

it('filters are made on while one steps from stone to stone', async () => {
  await user.visit('/correct');
  const making = '//*[@role="status"][@aria-label="Making filters"]';
  await user.find(making);
  await step('Rig');
  await user.find(making);
  await step('Correct');
  await user.sees('filters made');
});
