import { expect, it } from 'vitest';
import { aUser } from '../support/aUser';

const user = aUser();
const page = (name: string) => user.among('What is worked on', name);
const stale = () => user.driver.findElements({ css: '[aria-label="Out of date"]' });
/** Distance of the channel that is shown to its target, dB. */
const distance = async () =>
  Number(/To the target\s+([\d.]+) dB/.exec(await user.textOf('As left (predicted)'))?.[1]);

it('levels, subwoofers and crossover taken in an unlucky order are told to be out of date, and one press mends them', async () => {
  await user.visit('/mic-walk');
  await user.press('Take all that are left');
  await user.sees('28 good, of 28', 300_000);
  await user.visit('/correct');
  await user.sees('filters made');
  await page('Levels and delays');
  await user.press('Apply');
  await user.until('the levels are set', async () => {
    const trim = await (await user.field('Trim of Left')).getAttribute('value');
    return Number(trim!.replace(' dB', '').replace('\u2212', '-')) < 0;
  });
  expect(await stale()).toHaveLength(0);
  await page('Subwoofers');
  await user.press('Even out the seats');
  await user.reads('Out of date', /levels and delays no longer fit/);
  await page('Bass');
  await user.among('Whose crossover is aligned', 'all channels');
  await user.press('Crossover too');
  await user.sees(/All full-range channels and the subwoofers reach \d\d % of a perfect sum/);
  await user.reads('Out of date', /levels and delays no longer fit/);
  await user.press('Update');
  await user.until('nothing is out of date', async () => (await stale()).length === 0);

  // subwoofers that play together have one trim and one delay
  await page('Levels and delays');
  const values = async (what: string) =>
    Promise.all(
      ['Sub 1', 'Sub 2'].map(async (name) => (await user.field(`${what} of ${name}`)).getAttribute('value')),
    );
  for (const what of ['Trim', 'Delay']) {
    const [first, second] = await values(what);
    expect(first).toBe(second);
  }
  // and a channel is drawn with its bass, on its target down to where the subwoofers end
  await page('Shape');
  await user.sees('as left (predicted), with its bass');
  await user.until('it is near its target', async () => (await distance()) < 2);
});
