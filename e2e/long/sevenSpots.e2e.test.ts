import { describe, expect, it } from 'vitest';
import { aUser } from '../support/aUser';

const user = aUser();

const cell = async (name: string) => user.click(`//button[starts-with(@aria-label, "${name}:")]`);
const count = async () => Number(/(\d+) good/.exec(await user.textOf('Sweeps'))?.[1] ?? 0);

describe('a round of the plan Seat on seven channels', () => {
  it('a door slams and the stand is knocked: both are told, and mended', async () => {
    await user.visit('/rig');
    // a long round of short sweeps: 54 dB above the noise leave room for it
    await user.type('Sweep length', '1');
    await user.practise('A door slams during the next sweep');
    await user.practise('Someone knocks the stand after three sweeps');
    await user.visit('/mic-walk');
    await user.press('Spot plan');
    await user.tick('Seat, 7');
    await user.type('Spread', '40');
    await user.press('Lay out 7 spots');
    await user.sees('0 good, of 49');
    await user.press('Take this spot');
    await user.sees('Repeated by itself, and good now');
    await user.sees('7 good, of 49', 120_000);
    await user.sees(/the reference click sounds different from [\w ]+ on, so the microphone was moved/);
    await user.visit('/rig');
    await user.practise('Someone knocks the stand');
    await user.visit('/mic-walk');
    await user.press('Repeat from there');
    await user.until('the round goes on', async () => (await user.text()).includes('Hold still: sweep'));
    await user.until('it is over', async () => !(await user.text()).includes('Hold still'), 120_000);
    await user.until(
      'nothing is told of a moved microphone',
      async () => !/microphone was moved/.test(await user.textOf('What the round says')),
    );
    await user.until('still seven', async () => (await count()) === 7);
  });

  it('a reload in the middle loses nothing; it goes on and ends complete', async () => {
    await user.press('Take all that are left');
    await user.until('some more are taken', async () => (await count()) > 10, 120_000);
    await user.driver.navigate().refresh();
    await user.until('what was taken is there', async () => (await count()) > 10);
    await user.press('Take all that are left');
    await user.sees('49 good, of 49', 240_000);
    await user.sees('7 spots are in the average');
    const said = await user.textOf('What the round says');
    expect(said).not.toMatch(/moved|quieter|later than|no longer belong/);
  });

  it('one is deleted and taken again, a row is left out, noted, and undone', async () => {
    await cell('Left at Behind the head');
    await user.press('Delete');
    await user.sees('48 good, of 49');
    await cell('Left at Behind the head');
    await user.press('Take this one');
    await user.sees('49 good, of 49');
    await user.press('All sweeps at Above the ears');
    await user.press('Leave the row out');
    await user.find('//button[starts-with(@aria-label, "Sub 2 at Above the ears: left out, good")]');
    await user.find('//button[starts-with(@aria-label, "Sub 2 at Below the ears: good")]');
    await user.press('Undo: Above the ears left out');
    await user.find('//button[starts-with(@aria-label, "Sub 2 at Above the ears: good")]');
  });
});
