import { describe, expect, it } from 'vitest';
import { aUser } from '../support/aUser';

const user = aUser();
const notes = () => user.textOf('What the round says');
const WIRING = ['Output 2 has its polarity inverted', 'The loudspeaker on output 3 buzzes'];

async function practise(...faults: string[]): Promise<void> {
  await user.visit('/rig#channels');
  for (const fault of faults) await user.practise(fault);
  await user.visit('/mic-walk');
}

/** Takes the spot at hand, and waits until so many are whole. */
async function take(button: string, count: number): Promise<string> {
  await user.press(button);
  await user.sees('The round is under way');
  await user.sees(`${count} spot${count === 1 ? ' is' : 's are'} in the average`, 240_000);
  return notes();
}

describe('faults of channels are found wherever one measures, not only in the Rig', () => {
  it('a walk tells inverted polarity and a buzz, and advises to repeat only where it helps', async () => {
    await practise(...WIRING);
    const told = await take('Take this spot', 1);
    expect(told).toMatch(/Right: polarity is inverted/);
    expect(told).toMatch(/Centre: distorts by up to \d+ % \(5 % is the limit\)/);
    // a buzz is the loudspeaker's: nothing about it says that repeating helps
    expect(told).not.toMatch(/Centre: a (bang|click|noise).*repeat it/);
    await practise(...WIRING);
  });

  it('outputs that are exchanged at one spot are named there', async () => {
    await practise('Outputs 3 and 5 are exchanged');
    const told = await take('Take this spot', 2);
    expect(told).toMatch(/Centre: arrives [\d.]+ ms earlier .*as .*Surround right.* would/);
    expect(told).not.toMatch(/the microphone stood/);
    await practise('Outputs 3 and 5 are exchanged');
  });

  it('hum is told before a whole spot is taken with it', async () => {
    await practise('Hum of the mains');
    await user.press('Take this spot');
    await user.until('hum is told', async () => /Hum at 50 Hz and its multiples/.test(await notes()));
    await user.press('Silence');
    await practise('Hum of the mains');
  });
});
