import { NET_LOFT_PLACE } from '@pebble-hall/stand-ins/rig';
import { describe, expect, it } from 'vitest';
import { aUser } from './support/aUser';

const user = aUser();

const figure = async (label: string, text: RegExp): Promise<number> =>
  Number((await user.reads(label, text))[1]!.replace('\u2212', '-'));
const play = async () => {
  const generator = '//input[@aria-label="Play the generator"]';
  await user.until('a session', async () => (await user.find(generator)).isEnabled());
  await user.click(`//section[@aria-label="Generator"]//label[normalize-space(.)="Play"]`);
};
const delayOf = (name: string) => figure(`Delay of ${name}`, /^(-?[\d.]+) ms/);
/** So many times a plot was drawn. */
const redraws = async (label: string) =>
  Number(
    await user.driver.executeScript(
      'return document.querySelector(`[aria-label="${arguments[0]}"] canvas`)?.dataset.redraws ?? 0',
      label,
    ),
  );
const curvesMove = async () => {
  const before = await redraws('Level of the transfer functions');
  await user.until(
    'curves that move',
    async () => (await redraws('Level of the transfer functions')) > before + 10,
  );
};

describe('a live session', () => {
  it('measures a loudspeaker: when it is heard, whether that holds, and keeps it', async () => {
    await user.visit('/live');
    await user.press('Start the session');
    await play();
    await user.reads('What is heard', /Microphone is [\d.]+ ms after the loopback/);
    await user.press('Find');
    await user.reads('What is heard', /Microphone is [\d.]+ ms after the loopback and holds still/);
    // as long as sound takes from the left loudspeaker to the home spot, and the processor takes 1.25 ms
    const left = NET_LOFT_PLACE.loudspeakers.find((l) => l.output === 1)!.position;
    const home = { x: 3.6, y: 1.72, z: 1.14 };
    const metres = Math.hypot(left.x - home.x, left.y - home.y, left.z - home.z);
    const expected = 1.25 + (1000 * metres) / 343.2;
    await user.until(
      `a delay of ${expected} ms`,
      async () => Math.abs((await delayOf('Microphone')) - expected) < 0.6,
    );
    await user.press('Keep');
    await user.reads('Kept traces', /1 in Traces/);
    // by key too; a name is typed over in place
    await user.click('//h2[contains(., "What is heard")]');
    await user.driver.actions().sendKeys('k').perform();
    await user.reads('Kept traces', /2 in Traces/);
  });

  it('goes on while one steps to another workbench and back, and Silence ends only the sound', async () => {
    await user.click('//nav//a[contains(., "Plan")]');
    await user.sees('Live: playing');
    await user.click('//nav//a[contains(., "Live")]');
    await curvesMove();
    await user.press('Silence');
    await user.sees('Live: listening');
    await user.reads('Generator', /silent/);
    await user.press('Stop the session');
    await user.press('Start the session');
  });

  it('follows a microphone that is carried through the place', async () => {
    await play();
    await user.tick('Follow it');
    await user.press('Find');
    const before = await delayOf('Microphone');
    await user.among('Below the level', 'Place');
    const microphone = await user.find('//*[@role="button"][contains(@aria-label, "Siskin")]');
    await user.driver
      .actions()
      .move({ origin: microphone })
      .press()
      .move({ origin: microphone, x: -30, y: 0 })
      .move({ origin: microphone, x: -60, y: 0 })
      .release()
      .perform();
    await user.until('another delay', async () => Math.abs((await delayOf('Microphone')) - before) > 0.5);
    await user.press('Undo: microphone moved');
    await user.until(
      'the delay of before',
      async () => Math.abs((await delayOf('Microphone')) - before) < 0.3,
    );
    await user.tick('Follow it');
  });

  it('a second measurement, against the generator; their average; a delay by hand in metres', async () => {
    await user.press('Add');
    await user.choose('Reference', 'the generator');
    await user.choose('Unit of delays', 'm');
    await user.type('Delay taken off', '3.5');
    await user.reads('Measurements', /3\.50 m/);
    await user.choose('Unit of delays', 'ms');
    await user.press('Find');
    // the same microphone: later by what the interface takes, 574.37 samples
    const first = await delayOf('Microphone');
    await user.until(
      'the delay that the interface adds',
      async () => Math.abs((await delayOf('Microphone 2')) - first - 574.37 / 48) < 0.1,
    );
    await user.choose('Average of all', 'by power');
    // until it is drawn
    const drawn = await redraws('Level of the transfer functions');
    await user.until(
      'the average',
      async () => (await redraws('Level of the transfer functions')) > drawn + 8,
    );
    await user.press('Keep');
    await user.reads('Kept traces', /3 in Traces/);
    const name = await user.driver.executeScript<string>(
      'return document.querySelector(\'[aria-label="Kept traces"] input\').value',
    );
    expect(name).toMatch(/^Average/);
    await user.press('Remove Microphone 2');
  });

  it('two memories of the processor, one held beside the other, and how they differ', async () => {
    await user.press('Stop the session');
    await user.visit('/hand-over');
    await user.press('More of memory A');
    await user.click('//*[@role="menuitem"][normalize-space(.)="Copy to B"]');
    await user.visit('/live');
    await user.press('Start the session');
    await play();
    await user.reads('What is heard', /Microphone is [\d.]+ ms after the loopback and holds still/);
    await user.choose('Memory that plays', 'memory B');
    await user.reads(
      'What is heard',
      /Microphone: memory B less memory A, 100 Hz to 5 kHz: [+\u2212]?0\.\d dB, and [01]\.\d dB RMS around that/,
    );
    await user.press('Let memory A go');
    const memory = '//select[@aria-label="Memory that plays"]';
    await user.until('the memory to be recalled', async () => (await user.find(memory)).isEnabled());
    await user.choose('Memory that plays', 'memory A');
    await user.press('Let memory B go');
  });

  it('a spectrum in a noisy place, with and without its noise', async () => {
    await play();
    await user.among('Below the level', 'Place');
    await user.tick('audience talking');
    await user.among('What is measured live', 'Spectrum');
    await user.reads('What is heard', /Microphone: .*dB\(Z\) re full scale, averaged/);
    await new Promise((resolve) => setTimeout(resolve, 4000));
    await user.press('Keep as noise');
    await user.reads('What is heard', /The room’s own noise explains (all|\d\d) ?%?/);
    await user.type('Level of the generator', '-30');
    await play();
    // 16 dB louder than at first: it is the noise that is little now
    await user.until(
      'little noise',
      async () =>
        (await figure('What is heard', /The room’s own noise explains (?:less than )?(\d+) % of it/)) < 60,
    );
    await user.tick('take it off the spectrum');
    await user.press('Keep');
    await user.reads('Kept traces', /5 in Traces/);
  });

  it('survives a reload: what was kept, and how the session is set up', async () => {
    await user.press('Stop the session');
    await user.driver.navigate().refresh();
    await user.reads('Kept traces', /5 in Traces/);
    await user.among('What is measured live', 'Transfer function');
    await user.region('Averages');
    expect(Number((await delayOf('Microphone')).toFixed(1))).toBeGreaterThan(5);
  });

  it('a microphone that moves is averaged by power, and kept with how that was done', async () => {
    await user.press('Start the session');
    await user.choose('Averaged over', 'all since restarted');
    await user.choose('How blocks count', 'by power: a microphone that moves');
    await play();
    await user.among('Below the level', 'Place');
    await user.press('Restart');
    for (const way of [-50, 40, -40, 50]) {
      const microphone = await user.find('//*[@role="button"][contains(@aria-label, "Siskin")]');
      await user.driver
        .actions({ async: true })
        .move({ origin: microphone })
        .press()
        .move({ origin: microphone, x: Math.round(way / 2), y: way, duration: 400 })
        .move({ origin: microphone, x: way, y: 0, duration: 400 })
        .release()
        .perform();
    }
    await user.press('Keep');
    await user.reads('Kept traces', /6 in Traces/);
    await user.press('Stop the session');
    await user.click('//section[@aria-label="Kept traces"]//a');
    await user.reads('Chosen trace', /over all since restarted, as much as [\d.]+ blocks, levels by power/);
  });

  it('a measurement is averaged in its own way, whatever holds for all', async () => {
    await user.visit('/live');
    await user.press('Start the session');
    await play();
    await user.choose('Length of blocks', '4 k');
    await user.choose('Averaged over of Microphone', 'the first');
    await user.type('Number of blocks of Microphone', '8');
    await user.press('Keep');
    await user.reads('Kept traces', /7 in Traces/);
    await user.press('Stop the session');
    await user.click('//section[@aria-label="Kept traces"]//a');
    await user.reads('Chosen trace', /over the first 8 blocks/);
  });

  it('a microphone on the floor and one at the ear become one curve, kept as such', async () => {
    await user.visit('/rig#microphones');
    await user.press('Add a microphone');
    await user.visit('/live');
    await user.choose('Averaged over of Microphone', 'as all are');
    await user.choose('Length of blocks', 'merged');
    await user.choose('How blocks count', 'by coherence: people and noise about');
    await user.press('Add');
    await user.press('Start the session');
    await play();
    for (const i of [1, 2]) {
      await user.click(`//input[@aria-label="Name of measurement ${i}"]`);
      // the floor lies below the ear from here on
      if (i === 1)
        await user.choose('On the floor below Microphone', 'Microphone 2 is on the floor below it');
      await user.press('Find');
      await user.reads(
        'What is heard',
        new RegExp(`${i === 1 ? 'Microphone' : 'Microphone 2'} is [\\d.]+ ms`),
      );
    }
    const PAIR = 'Microphone, floor and ear';
    const [, level] = await user.reads(`Fit of ${PAIR}`, /floor ([+\u2212][\d.]+) dB, [\u2212\d.]+ ms/);
    // the floor hears more than the ear, by up to twice the pressure
    const raised = Number(level!.replace('\u2212', '-'));
    expect(raised).toBeLessThan(0.5);
    expect(raised).toBeGreaterThan(-9);
    await user.type(`Crossover of ${PAIR}`, '250');
    await user.click(`//button[normalize-space(.)="${PAIR}"]`);
    await user.press('Restart');
    await user.reads(`Fit of ${PAIR}`, /dB apart where they meet/);
    await user.press('Keep');
    await user.reads('Kept traces', /8 in Traces/);
    // its meters are there on every page
    await user.click('//nav//a[@href="/plan"]');
    await user.click('//button[contains(@class, "pill")][contains(., "Live:")]');
    await user.reads('Sound levels now', /A\s+\u2212[\d.]+/);
    await user.find('//*[@role="meter"][@aria-label="Meter of input 1"]');
    await user.click('//*[@aria-label="Meters"]//a');
    await user.press('Stop the session');
    await user.click('//section[@aria-label="Kept traces"]//a');
    await user.reads('Chosen trace', /blocks by coherence, below 250 Hz by the floor's input \d/);
  });
});
