import { Key } from 'selenium-webdriver';
import { describe, it } from 'vitest';
import { aUser } from './support/aUser';

const user = aUser();

const checkOne = async (name: string) => {
  await user.press(`Check ${name}`);
  await user.sees('a short sweep is playing');
  await user.until('the check is over', async () => !(await user.text()).includes('Checking a channel'));
};

describe('from nothing to ready to measure, on the simulated rig', () => {
  it('Connect: measures its own round trip and shows it, speaks a name, moves a channel', async () => {
    await user.visit('/rig#connect');
    await user.press('Measure');
    await user.sees(/Round trip\s+11\.9\d ms/);
    await user.sees('output 8 to input 2');
    await user.tick('Divide the interface');
    await user.press('Undo: interface divided out');
    await user.press('Speak the name of Surround left');
    await user.sees('Speaking the name of Surround left');
    await user.until('the name is spoken', async () => !(await user.text()).includes('Speaking the name'));
    await user.choose('Output of Sub 2', 'out 8');
    await user.sees('Sub 2');
    await user.press('Undo: Sub 2 on output 8');
  });

  it('Microphones: looks files up, shows them before they are accepted, flags the wrong angle', async () => {
    await user.view('Microphones');
    await user.choose('It points', 'upright (90°)');
    await user.sees(/does not say for which angle|is for 0°, but the microphone points upright/);
    await user.press('Look it up');
    await user.sees('siskin-m1-4417-90-degrees.txt');
    await user.sees('90°, new');
    await user.press('Accept 2 files');
    await user.sees('90°, in use');
    await user.lacks('but the microphone points');
    await user.choose('It points', 'at the source (0°)');
    await user.sees(
      /The file in use is for 90°, but the microphone points at the source \(0°\): wrong by up to [3-6]\.\d dB/,
    );
    await user.click('//label[contains(normalize-space(.), "4417, at the source")]');
    await user.until('the flag is gone', async () => !(await user.text()).includes('wrong by up to'));
  });

  it('Microphones: unknown, malformed and damaged look-ups are told, and so is one that cannot be reached', async () => {
    const lookUp = async (serial: string, told: RegExp | string) => {
      const field = await user.field('Serial to look up');
      await field.sendKeys(Key.chord(Key.CONTROL, 'a'), serial);
      await user.press('Look it up');
      await user.sees(told);
    };
    await lookUp('9999', 'No Siskin M1 with serial 9999 is known');
    await lookUp('44x', 'is no serial of a Siskin M1');
    await lookUp('5333', /siskin-m1-5333-0-degrees\.txt, but it is damaged: Line \d+ is not a row/);
    await user.goOffline(true);
    await lookUp('4418', 'The look-up cannot be reached');
    await user.goOffline(false);
  });

  it('Level: calibrates with 94 dB, checks 114, refuses what is not right, asks again when the gain was changed', async () => {
    await user.view('Level');
    await user.sees('Everything works in relative dB');
    await user.press('Start the meter');
    await user.tick('on, 94');
    const sits = async (how: string, told: RegExp) => {
      await user.choose('How the Lantern sits', how);
      await user.sees(told, 30_000);
    };
    await sits('does not sit tight', /The tone swings by \d\.\d dB/);
    await sits('makes 250 Hz', /The tone is at 250 Hz, not at 1 kHz/);
    await sits('is held by hand', /Low rumble beside the tone/);
    await sits('sits well', /Stable at −26\.\d\d dB re full scale/);
    await user.press('Set the level by 94 dB');
    await user.sees(/Full scale is\s+120\.0\d dB/);
    await user.until('the meter reads 94 dB', async () => /9[34]\.\d/.test(await user.textOf('Meter 1')));
    await user.tick('on, 114');
    await user.sees(/Stable at −6\.\d\d dB re full scale/, 30_000);
    await user.press('Check 114 against 94 dB');
    await user.sees('114 reads 113.9: linear within 0.1 dB.');
    await user.press('Stop the meter');
    await user.view('Microphones');
    await user.type('Gain of the input', '12');
    await user.view('Level');
    await user.sees('The gain was 0 dB then and is 12 dB now: calibrate again.');
    await user.press('Undo: input gain 12 dB');
    await user.sees('Level');
    await user.lacks('calibrate again');
  });

  it('Level: several meters side by side, large figures, and Escape silences', async () => {
    await user.press('Start the meter');
    await user.choose('Quantity of meter 2', 'LCS (C, Slow)');
    await user.until('the meters read the room', async () =>
      /[3-5]\d\.\d/.test(await user.textOf('Meter 1')),
    );
    await user.press('Large figures');
    await user.region('Large figures');
    await user.press('Back');
    await (await user.find('//body')).sendKeys(Key.ESCAPE);
    await user.sees('Start the meter');
  });

  it('Channels: the noise in words, all channels right, the suggested level, ready to measure', async () => {
    await user.view('Channels');
    await user.press('Listen to the room');
    await user.sees(/Noise of the room\s+\d\d dB\(A\)/);
    await user.press('Check every channel');
    await user.until(
      'every channel is judged',
      async () => ((await user.text()).match(/dB above the noise/g) ?? []).length >= 7,
    );
    await user.until('the check is over', async () => !(await user.text()).includes('Checking every'));
    await user.click(
      '//button[starts-with(normalize-space(.), "Set −") or starts-with(normalize-space(.), "Set -")]',
    );
    await user.sees(/ready, \d+ dB/);
    await user.counts(/loud enough/, 7);
  });
});

describe('faults lead to the right verdict', () => {
  it('polarity, exchanged outputs, a buzz, hum, a missing loopback', async () => {
    const one = async (fault: string, channel: string, told: RegExp) => {
      await user.practise(fault);
      await checkOne(channel);
      await user.sees(told);
      await user.practise(fault);
      await checkOne(channel);
      await user.until('it is right again', async () => /loud enough/.test(await user.textOf(channel)));
    };
    await one('Output 2 has its polarity inverted', 'Right', /polarity is inverted: exchange \+ and −/);
    await one('The loudspeaker on output 3 buzzes', 'Centre', /distorts by \d\d % \(5 % is the limit\)/);
    await one('The loopback cable is pulled out', 'Left', /the loopback carried nothing/);
    await user.practise('Outputs 3 and 5 are exchanged');
    await checkOne('Centre');
    await checkOne('Surround right');
    await user.sees(/arrives \d\.\d ms earlier than the plan says; this sounds like Surround right/);
    await user.sees(/arrives \d\.\d ms later than the plan says; this sounds like Centre/);
    await user.practise('Outputs 3 and 5 are exchanged');
    await checkOne('Centre');
    await checkOne('Surround right');
    await user.practise('Hum of the mains');
    await user.press('Listen to the room');
    await user.sees(/Hum at 50 Hz and its multiples \(100, 150, 250 Hz\)/);
    await user.practise('Hum of the mains');
  });

  it('old settings in the processor: told what adds up and what stays, set to zero, put back', async () => {
    await user.sees('No trims, delays or inverted polarity');
    await user.click('//button[normalize-space(.)="Practise"]');
    await user.press('Leave old settings in the processor');
    await user.click('//button[normalize-space(.)="Practise"]');
    await user.sees(
      'Adds up with a correction: Left −3 dB; Surround left +2.5 dB; Sub 2 6.5 ms, polarity inverted.',
    );
    await user.sees(/Stays and is measured along: Sub 1 low-pass 110 Hz/);
    await user.press('Set them to zero');
    await user.sees('No trims, delays or inverted polarity');
    await user.press('Put back what was there');
    await user.sees('Adds up with a correction: Left −3 dB');
    await user.press('Set them to zero');
    await user.sees('No trims, delays or inverted polarity');
  });

  it('two subwoofers on one output: found, matched one at a time', async () => {
    await user.practise('Sub 2 hangs on the output of Sub 1');
    await checkOne('Sub 2');
    await user.press('On the output of Sub 1?');
    await user.sees('shares output 6 with Sub 1: match them first');
    await user.press('Hear Sub 1 alone');
    await user.until('Sub 1 was heard', async () =>
      /-?\d+\.\d dB/.test(await user.textOf('Match them first')),
    );
    await user.until('it is over', async () => !(await user.text()).includes('Sub 1 alone\nCancel'));
    await user.press('Hear Sub 2 alone');
    const told = await user.sees(/Sub [12] is \d\.\d dB louder than Sub [12]: turn it down by \d\.\d dB/);
    const [, louder, by] = /(Sub [12]) is (\d\.\d) dB louder/.exec(told)!;
    const field = await user.field(`Gain knob of ${louder}`);
    const before = Number((await field.getAttribute('value'))!.replace(' dB', '').replace('−', '-'));
    await user.type(`Gain knob of ${louder}`, String(before - Number(by)));
    await user.press(`Hear ${louder} alone`);
    await user.sees(/Matched within 0\.\d dB/);
    await user.practise('Sub 2 hangs on the output of Sub 1');
    await user.press('Undo: Sub 2 on output 6');
  });
});

describe('distances', () => {
  it('are typed, heard, held against each other, and taken over into the plan', async () => {
    await user.view('Distances');
    await user.sees('Nothing is typed or heard yet');
    await user.type('Typed to Left', '4.2');
    await user.click('//button[normalize-space(.)="Left"]');
    await user.press('Measure close to Left');
    await user.sees('1 of 8 places heard');
    await user.click('//button[normalize-space(.)="Home spot"]');
    await user.press('Measure from the home spot');
    await user.sees('2 of 8 places heard');
    await user.sees(/typed 4\.20 m, heard 3\.1\d m/);
    await user.type('Set by hand to Left', '3.12');
    await user.until(
      'the disagreement is settled',
      async () => !(await user.text()).includes('typed 4.20 m, heard'),
    );
    await user.tick('feet');
    await user.sees(/10\.2\d ft/);
    await user.tick('metres');
    await user.press('Apply to plan');
    await user.sees('The plan has the loudspeakers where the distances put them');
    await user.press('Undo: places from distances');
  });
});
