// Takes the pictures in docs/screenshots from the demo data: goes the whole path once, as the browser tests do.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Key } from 'selenium-webdriver';
import { expect, it } from 'vitest';
import { aUser } from './support/aUser';

const folder = join(import.meta.dirname, '..', 'docs', 'screenshots');
const user = aUser();
const DUSK = 'Dusk: dark look';
const DAYLIGHT = 'Daylight: light look';

/** Writes what is on screen now. */
const snap = async (name: string) => {
  const png = await user.driver.takeScreenshot();
  writeFileSync(join(folder, `${name}.png`), png, 'base64');
  return png;
};

/** Writes what is on screen once messages have gone and nothing moves any more. */
async function picture(name: string) {
  await user.driver.executeScript('document.activeElement?.blur()');
  let last = '';
  await user.until(`a page that stands still for ${name}`, async () => {
    const messages = await user.driver.findElements({ css: '.mantine-Notification-root' });
    const before = last;
    last = await user.driver.takeScreenshot();
    return messages.length === 0 && last === before;
  });
  expect((await snap(name)).length).toBeGreaterThan(10_000);
}

const page = (name: string) => user.among('What is worked on', name);
const chip = (name: string) =>
  user.click(`//button[contains(@class, "chip")][starts-with(normalize-space(.), "${name}")]`);
const practise = (faults: object | null) =>
  user.driver.executeScript(
    faults
      ? `localStorage.setItem('pebble-hall.practice', JSON.stringify(${JSON.stringify(faults)}))`
      : `localStorage.removeItem('pebble-hall.practice')`,
  );

it('Start and Rig', async () => {
  await user.visit('/');
  await user.sees('Say how large the place is');
  await picture('start');
  await user.visit('/rig');
  await user.press('Listen to the room');
  await user.sees('noise of the room');
  await user.press('Check every channel');
  await user.sees(/(dB above the noise[\s\S]*){7}/);
  await user.click('//button[starts-with(normalize-space(.), "Set ")]');
  await user.sees('The level is right');
  await picture('rig');
  await user.view('Connect');
  await user.press('Speak the name of Surround left');
  await user.sees('Speaking the name');
  await user.lacks('Speaking the name');
  await user.view('Level');
  await user.press('Start the meter');
  await user.tick('on, 94');
  await user.sees('Stable at');
  await user.press('Set the level by 94 dB');
  await user.tick('on, 114');
  await user.sees('Stable at −6');
  await user.press('Check 114 against 94 dB');
  await user.sees('114 reads');
  await user.press('Stop the meter');
});

it('Mic walk and its phone', async () => {
  await user.visit('/mic-walk');
  await user.press('Take this spot');
  await user.sees('7 good, of 28');
  await practise({ doorSlam: true, silentOutputs: [4] });
  await user.press('Take this spot');
  await user.sees(/Surround left: nothing arrived/);
  await user.sees('Take this spot');
  await practise(null);
  await user.press('Take all that are left');
  await user.sees('Hold still: sweep 6');
  await snap('mic-walk');
  await user.sees('28 good, of 28');

  await user.press('Phone');
  await user.press('Get a pairing code');
  await user.sees('End the pairing');
  const code = await user.textOf('Pairing code');
  const desk = await user.driver.getWindowHandle();
  await user.driver.switchTo().newWindow('window');
  await user.driver.manage().window().setRect({ width: 500, height: 900, x: 0, y: 0 });
  await user.driver.get(`${user.url}/follow`); // a page of its own, without the frame
  await (await user.find('//input')).sendKeys(code);
  await user.press('Follow');
  await user.sees('spots taken');
  await picture('follow');
  await user.driver.close();
  await user.driver.switchTo().window(desk);
});

it('Traces', async () => {
  const traces = async (address: string, seen: RegExp) => {
    await user.visit(`/traces${address}`);
    await user.driver.navigate().refresh(); // a page that differs in its hash alone is not loaded anew
    await user.sees(seen);
  };
  await user.press(DUSK);
  await traces('#decay', /Hz, \+/);
  await picture('traces-decay-dusk');
  await user.press(DAYLIGHT);
});

it('Align', async () => {
  await user.visit('/align');
  await user.press('Bring them together');
  await user.click('//*[@role="group"][@aria-label="Ways to bring them together"]/button[2]');
  await user.reads('Keep and hand on', /To be played|gets these levels/);
  await picture('align');
  await user.press('Remove Left with Sub 1');
});

it('Correct', async () => {
  await user.visit('/correct');
  await user.sees('filters made');
  await picture('correct-daylight');
  await page('Subwoofers');
  await user.press('Even out the seats');
  await user.sees('what evenness costs');
  await chip('Sub 1');
  await user.sees('filters made');
  await picture('correct-subwoofers');
});

it('Listen and Hand over', async () => {
  await user.visit('/listen');
  await user.sees('as one microphone at');
  await user.press('Play');
  await user.sees('Matched in loudness:');
  await snap('listen');
  await user.press('Stop');
  await user.visit('/hand-over');
  await user.press('Load memory B');
  await user.sees('read back exactly');
  await user.press('Put back');
  await user.sees('as they were meant to be');
  await user.press('Measure again');
  await user.sees('All 7 channels were measured again');
  await picture('hand-over');
});

it('Live and the library', async () => {
  await user.visit('/rig#microphones');
  for (let i = 0; i < 3; i++) await user.press('Add a microphone');
  await user.visit('/live');
  const names = ['Home', 'Row 2', 'Row 3', 'Side'];
  for (const [i, name] of names.entries()) {
    if (i > 0) await user.press('Add');
    const field = await user.find(`//input[@aria-label="Name of measurement ${i + 1}"]`);
    await field.sendKeys(Key.chord(Key.CONTROL, 'a'), name, Key.ENTER);
    await user.find(`//*[@aria-label="Level of input ${[1, 3, 4, 5][i]}, ${name}"]`);
  }
  await user.press('Start the session');
  await user.until('a session', async () =>
    (await user.find('//input[@aria-label="Play the generator"]')).isEnabled(),
  );
  await user.click('//section[@aria-label="Generator"]//label[normalize-space(.)="Play"]');
  await new Promise((resolve) => setTimeout(resolve, 3000));
  for (let i = 1; i <= 4; i++) {
    await user.click(`//input[@aria-label="Name of measurement ${i}"]`);
    await user.press('Find');
    await new Promise((resolve) => setTimeout(resolve, 1500));
  }
  await new Promise((resolve) => setTimeout(resolve, 6000));
  await user.press('Keep');
  await user.reads('Kept traces', /1 in Traces/);
  await new Promise((resolve) => setTimeout(resolve, 5000));
  await snap('live');
  await user.choose('Channel', 'Sub 1');
  await new Promise((resolve) => setTimeout(resolve, 5000));
  await user.press('Keep');
  await user.among('Below the level', 'Place');
  await user.tick('audience talking');
  await user.press(DUSK);
  await user.among('What is measured live', 'Spectrum');
  await user.click('//section[@aria-label="Generator"]//label[normalize-space(.)="Play"]');
  await new Promise((resolve) => setTimeout(resolve, 7000));
  await user.press('Keep as noise');
  await user.choose('Channel', 'Left');
  await user.click('//section[@aria-label="Generator"]//label[normalize-space(.)="Play"]');
  await user.tick('take it off the spectrum');
  await user.tick('max');
  await new Promise((resolve) => setTimeout(resolve, 9000));
  await snap('live-spectrum-dusk');
  await user.press(DAYLIGHT);
  await user.press('Stop the session');
  await user.visit('/traces#library');
  const trace = async (name: string, holding?: string) => {
    const found = await user.find(`//button[@aria-pressed][contains(@title, "${name}")]`);
    const actions = user.driver.actions();
    await (holding ? actions.keyDown(holding).click(found).keyUp(holding) : actions.click(found)).perform();
  };
  await trace('Left');
  await trace('Sub 1', Key.CONTROL);
  await user.press('Add to the library');
  await user.reads('Chosen trace', /Sum of/);
  await user.press('Show Eider 10 in the open');
  await user.press('Look');
  const differences = await user.find('//select[@aria-label="Differences against"]');
  await differences.findElement({ xpath: './option[contains(., "Sum of")]' }).click();
  await user.click('//label[normalize-space(.)="Mark"]');
  await user.press('Look');
  await user.press('One more plot');
  await user.choose('Third plot', 'Phase');
  await picture('traces-library');
  await user.visit('/live');
  await user.among('What is measured live', 'Electronics');
  await user.press('Start the session');
  const knob = (label: string) => user.find(`//*[@role="slider"][@aria-label="${label}"]`);
  await user.until('the device to be fed', async () =>
    (await user.find('//input[@aria-label="Play through the device"]')).isEnabled(),
  );
  await user.click('//section[@aria-label="Device"]//label[normalize-space(.)="Play"]');
  await new Promise((resolve) => setTimeout(resolve, 9000));
  await user.press('Keep as flat');
  await user.press('Measure');
  await user.reads('Figures of the device', /Latency/);
  await user.click('//section[@aria-label="Device"]//label[normalize-space(.)="Play"]');
  await user.among('Below the level', 'Front');
  for (const end of [Key.HOME, Key.END]) {
    await (await knob('Channel 1 Middle')).sendKeys(end);
    await user.press('Restart');
    await new Promise((resolve) => setTimeout(resolve, 12_000));
    await user.press('Read this curve');
    await user.reads('What was read', /leaves/);
    await user.type('Family of the reading', 'Middle');
    if (end === Key.HOME) await user.among('Below the level', 'Front');
  }
  for (const [figure, value] of [
    ['frequency', '1000'],
    ['gain', '15'],
  ] as const)
    await user.type(`Shape 1: published ${figure}`, value);
  await user.reads('What was read', /of 2 published figures .*mirror image within/);
  await snap('live-electronics');
  await user.press('Stop the session');
});

it('Plan', async () => {
  await user.visit('/plan');
  await user.press('Project');
  await user.press('All projects');
  await user.press('Saltmarsh Slip Hall');
  await user.driver.actions().sendKeys(Key.ESCAPE).perform();
  await user.sees('181 seats');
  await (await user.find('//*[@role="button"][@aria-label="Subs left"]')).click();
  await user.sees('2 boxes on output 3');
  await picture('plan');
  await user.visit('/room-model');
  await user.click('//*[@role="button"][@aria-label="Folding doors, timber"]');
  await user.choose('What Folding doors, timber is made of', 'Drape, heavy, draped to half');
  await user.reads('Chosen surface', /Drape, heavy/);
  await user.press('New run');
  await user.press('Run');
  await user.reads('Where', /of 26/);
  await user.until('the run is whole', async () => !/Tracing/.test(await user.text()));
  await user.choose('Figure', 'Early decay time');
  await picture('room-model');
  await user.visit('/plan');
  await user.press(DUSK);
  await user.visit('/room-model');
  await user.among('What is asked', 'Is the voice first?');
  await user.reads('What it says', /as proposed at/);
  await picture('room-voice-dusk');
  await user.visit('/plan');
  await user.driver.actions().sendKeys(Key.ESCAPE).perform();
  await user.click('//*[name()="text"][contains(., "seen from above")]');
  await user.press('Level map');
  await user.among('Surface', 'over the floor');
  await user.sees('on the mean of the seats');
  await picture('plan-level-map-dusk');
  await user.press('Level map');
  await user.visit('/align');
  await user.press('Make these 4 steps');
  await user.reads('What it says', /By the models/);
  const crossed = async (source: string, pass: string) => {
    await user.click(`//section[@aria-label="Sources"]//button[@aria-pressed][contains(., "${source}")]`);
    // its own card, not that of the one before
    await user.reads('Setting', new RegExp(source));
    await user.pick(pass, 'Linkwitz-Riley 24 dB/oct');
    await user.type(`${pass} frequency`, '90');
  };
  await crossed('Main left', 'High-pass');
  await crossed('Subs left', 'Low-pass');
  await user.type('Gain', '-8');
  await user.click('//label[normalize-space(.)="Where"]');
  await user.click('//*[@role="group"][@aria-label="Places to align at"]/button[1]');
  await user.reads('What it says', /at the place to align/);
  await user.reads('Ways to bring them together', /1\. /);
  await user.click('//*[@role="group"][@aria-label="Ways to bring them together"]/button[1]');
  await user.reads('What it says', /add up to (99|100) %/);
  await picture('align-where-dusk');
  await user.press(DAYLIGHT);
  await user.press('Project');
  await user.press('New project');
  await user.sees('All of it can be changed later');
});
