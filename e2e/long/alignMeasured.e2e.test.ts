import { expect, it } from 'vitest';
import { aligning } from '../support/aligning';
import { aUser } from '../support/aUser';
import { openShelved } from '../support/shelf';

const user = aUser();
const { aWay, inGroup, look, source, step } = aligning(user);

/** The steps of the Slip Hall, in order, with the sources in each that are channels. */
const STEPS = [
  { name: 'Mains with subwoofers', channels: ['Main left and Main right', 'Subs left and Subs right'] },
  { name: 'Fills to the mains', channels: ['Fill left and Fill right'] },
  { name: 'Delay line to what is before', channels: ['Delay line'] },
  { name: 'Under the gallery to what is before', channels: ['Under the gallery'] },
];

it('by the models, each step has a place where its two meet, which becomes a spot', async () => {
  await openShelved(user, 'Saltmarsh Slip Hall', 'the Slip Hall');
  await user.visit('/rig');
  await user.view('Channels');
  await user.type('Test level', '-30');
  await user.visit('/align');
  await user.press('Make these 4 steps');
  await look('Where');
  for (const { name, channels } of STEPS) {
    await step(name);
    await source(channels.at(-1)!);
    await user.reads('Places to align at', /1\. /);
    await inGroup('Places to align at', 1);
    await user.press('Make it a spot');
    await user.lacks('Make it a spot');
  }
});

it('all channels are swept at those four spots', async () => {
  await user.visit('/mic-walk');
  for (const [i, { name }] of STEPS.entries()) {
    await user.click(`//*[@role="button"][starts-with(@aria-label, "For ${name},")]`);
    await user.sees(`For ${name}`);
    await user.press('Take this spot');
    await user.sees(`${8 * (i + 1)} good, of 152`, 300_000);
  }
});

it('step by step what was swept is brought together at its place, swept together, and found as predicted', async () => {
  await user.visit('/align');
  await look('Where');
  for (const { name, channels } of STEPS) {
    await step(name);
    for (const channel of channels) {
      await source(channel);
      await user.choose('Known from', 'sweeps of the walk');
    }
    await user.reads('What it says', new RegExp(`at For ${name}`));
    await aWay();
    await inGroup('Ways to bring them together', 1);
    await look('Curves');
    await user.click(
      `//select[@aria-label="Measured together"]/option[contains(., "sweep all at once, now")]`,
    );
    const [, off] = await user.reads(
      'What it says',
      new RegExp(`measured at For ${name} is as predicted, within ([\\d.]+) dB`),
    );
    expect(Number(off)).toBeLessThanOrEqual(0.5);
    await user.click('//section[@aria-label="Keep and hand on"]//label[normalize-space(.)="done"]');
    await look('Where');
  }
  await user.sees('4 of 4 steps');
});
