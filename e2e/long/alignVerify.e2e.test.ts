import { expect, it } from 'vitest';
import { aUser } from '../support/aUser';

const user = aUser();

const option = (text: string) =>
  user.click(`//select[@aria-label="Measured together"]/option[contains(., "${text}")]`);
const proof = (says: RegExp) => user.reads('What it says', says);

it('two that were swept alone are brought together, swept together, and found as predicted', async () => {
  await user.visit('/mic-walk');
  await user.press('Take this spot');
  await user.sees('7 good, of 28', 300_000);
  await user.visit('/align');
  await user.choose('Stands still', 'Left');
  await user.choose('Is brought to it', 'Sub 1');
  await user.press('Bring them together');
  await user.until('a way', async () => /\d %/.test(await user.textOf('Ways to bring them together')));
  await user.click('//*[@role="group"][@aria-label="Ways to bring them together"]/button[1]');
  await option('sweep all at once, now');
  const [, off] = await proof(/measured at Home spot is as predicted, within ([\d.]+) dB/);
  expect(Number(off)).toBeLessThanOrEqual(0.5);
});

it('set otherwise it is no longer so, until it is swept again', async () => {
  // an eighth of a period or so: nothing cancels down into the noise, and what was swept before is told from it
  const delay = await (await user.field('Delay')).getAttribute('value');
  const ms = Number(delay!.replace('\u2212', '-').replace(/[^\d.-]/g, ''));
  await user.type('Delay', String(ms + 1));
  await proof(/measured at Home spot is not as predicted: [\d.]+ dB off/);
  await option('sweep all at once, now');
  await proof(/measured at Home spot 2 is as predicted, within 0\.[0-5] dB/);
  // kept with the others, with all that is known of it
  await user.visit('/traces#library');
  await user.click('//button[@aria-pressed][contains(@title, "measured at Home spot 2")]');
  await user.sees(/Sub 1: \u2212?[\d.]+ ms/);
  await user.sees(/At Home spot: microphone at x/);
});

it('heard in Listen: this setting and the one that was kept, with noise of the band that both share', async () => {
  await user.visit('/align');
  await user.choose('All-pass sections allowed', 'delay and polarity');
  await user.until('ways without', async () => /\d %/.test(await user.textOf('Ways to bring them together')));
  await user.click('//*[@role="group"][@aria-label="Ways to bring them together"]/button[1]');
  await user.press('Keep this setting');
  await user.find('//input[@aria-label="Name of Kept"]');
  const delay = await (await user.field('Delay')).getAttribute('value');
  await user.type('Delay', String(Number(delay!.replace('\u2212', '-').replace(/[^\d.-]/g, '')) + 2));
  await user.press('Hear them');
  await user.find('//*[@role="group"][@aria-label="What is heard"]');
  await user.until('noise of the shared band', async () => {
    const [from, to] = await Promise.all(
      ['Noise from', 'Noise to'].map(async (f) =>
        Number(((await (await user.field(f)).getAttribute('value')) ?? '').replace(/[^\d.]/g, '')),
      ),
    );
    return from! >= 20 && to! > 1.1 * from! && to! < 400;
  });
  await user.sees('Left with Sub 1: Kept');
  await user.press('Play');
  await user.press('Stop');
});
