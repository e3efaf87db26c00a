import { describe, expect, it } from 'vitest';
import { aUser } from './support/aUser';

const user = aUser();

const chip = async (name: string) =>
  user.click(`//button[contains(@class, "chip")][normalize-space(.)="${name}"]`);
const cell = async (name: string) => user.click(`//button[starts-with(@aria-label, "${name}:")]`);
const notes = () => user.textOf('What the plot says');

describe('rounds', () => {
  it('take two channels, leave one sweep out, note it, and undo', async () => {
    await user.visit('/rig#channels');
    for (const name of ['Centre', 'Surround left', 'Surround right', 'Sub 1']) {
      await user.click(`//*[@role="group"][@aria-label="${name}"]//label[normalize-space(.)="fitted"]`);
    }
    await user.counts(/left out/, 4);
    // whoever steps on at once loses nothing: the page is left once the change is stored
    await user.driver.executeScript(`
      document.querySelector('[role=group][aria-label="Sub 2"] input').click();
      document.querySelector('nav[aria-label=Workbenches] a[href="/mic-walk"]').click();`);
    await user.sees('0 good, of 8');
    await user.press('Take all that are left');
    await user.sees('8 good, of 8');
    await cell('Left at Spot 2');
    await user.tick('Use this sweep');
    await user.find('//button[starts-with(@aria-label, "Left at Spot 2: left out, good")]');
    await user.press('Undo: Left at Spot 2 left out');
    await user.find('//button[starts-with(@aria-label, "Left at Spot 2: good")]');
  });

  it('a second round begins empty, keeps the first, and is compared with it', async () => {
    await user.visit('/mic-walk');
    await user.press('First round');
    await user.press('Begin a new round');
    await user.sees('0 good, of 8');
    await user.press('Take this spot');
    await user.sees('2 good, of 8');
    await user.visit('/traces');
    await user.sees('10 traces');
    await user.pick('Compared with', 'First round');
    await user.until('both rounds are drawn', async () =>
      (await user.textOf('Legend')).includes('Left, First round'),
    );
    await user.visit('/mic-walk');
    await user.press('Second round');
    await user.press('Delete this one');
    await user.sees('8 good, of 8');
    await user.press('Undo: deleting Second round');
    await user.sees('2 good, of 8');
    await user.press('Redo: deleting Second round');
    await user.sees('8 good, of 8');
  });
});

describe('looking', () => {
  it('Level: reads peaks and dips, lays channels over each other, tells how they differ, saves plot and table', async () => {
    await user.visit('/traces#level');
    await user.until('the plot is read', async () =>
      /(Peak|Dip) of [+−]\d+\.\d dB at \d/.test(await notes()),
    );
    await user.sees(/First strong reflection \d+\.\d ms after the direct sound, \d+\.\d m longer/);
    await chip('Right');
    await user.sees(/Left is [+−]\d\.\d dB against Right on the mean/);
    await user.tick('Left minus Right');
    await user.until(
      'the difference is drawn',
      async () => (await user.textOf('Legend')) === 'Left minus Right',
    );
    await user.press('Save this plot');
    await user.press('As SVG, for print');
    const svg = (await user.download(/Left-minus-Right\.svg$/)).bytes.toString();
    expect(svg).toContain('Left minus Right');
    expect(svg).toContain('smoothed 1/6 octave');
    await user.press('Save this plot');
    await user.press('As PNG');
    const png = (await user.download(/Left-minus-Right\.png$/)).bytes;
    expect([...png.subarray(1, 4)].map((c) => String.fromCharCode(c)).join('')).toBe('PNG');
    await user.press('Save CSV');
    const csv = (await user.download(/Range-and-level\.csv$/)).bytes.toString();
    expect(csv).toMatch(/^Channel,.*\r\nLeft,.*\r\nRight,/);
  });

  it('Delay, Time and Decay: at one spot, with a window that narrows by key, and resonances with their decay', async () => {
    await user.visit('/traces#delay');
    await user.sees(/Latest at \d+(\.\d+)? Hz: \d+\.\d+ ms after the arrival/);
    await user.tick('Excess group delay');
    await user.sees(/Farthest from minimum phase at/);
    await user.visit('/traces#time');
    await user.sees(/Reflection \d\.\d ms after the direct sound: \d\.\d\d m longer/);
    const side = await user.slider('Window, right side');
    const was = Number(await side.getAttribute('aria-valuenow'));
    await user.keys(side, '\uE012', '\uE012'); // arrow left
    await user.until(
      'the window is shorter',
      async () => Number(await side.getAttribute('aria-valuenow')) < was,
    );
    await user.sees(/Below \d+ Hz it is too short/);
    await user.visit('/traces#decay');
    await user.sees(/\d+(\.\d)? Hz, \+\d\.\d dB, \d\.\d\d s, at \d of 3 spots/);
    await user.press('Save this plot');
    await user.press('As SVG, for print');
    const map = (await user.download(/Decay-of-\w+\.svg$/)).bytes.toString();
    expect(map).toMatch(/<image href="data:image\/png;base64,/);
    expect(map).toContain('ms after the arrival');
    await user.tick('Slices');
    await user.until('slices are drawn', async () => (await user.textOf('Legend')).startsWith('0 ms'));
  });

  it('families: proposed by model, select their members, rearranged by keyboard, and undone', async () => {
    await user.visit('/traces#level');
    await user.click('//button[starts-with(normalize-space(.), "Family Dunlin 6")]');
    await user.until('both are drawn', async () => (await user.textOf('Legend')).includes('Right'));
    await user.press('Families');
    await user.pick('Family of Right', 'a family of its own');
    await user.until(
      'the family is gone',
      async () =>
        (
          await user.driver.findElements({
            xpath: '//button[starts-with(normalize-space(.), "Family Dunlin 6")]//small[.="2"]',
          })
        ).length === 0,
    );
    await user.press('Undo: family of Right');
    await user.find('//button[starts-with(normalize-space(.), "Family Dunlin 6")]//small[.="2"]');
  });

  it('Level against the target, spots fanned out under the pointer; Distortion over frequency with its noise floor', async () => {
    await user.visit('/traces?channel=left#level');
    await user.pick('Normalise', 'against the target');
    await user.sees('dB against the target');
    await user.sees('seat range');
    await user.driver
      .actions()
      .move({ origin: await user.region('Level of Left') })
      .perform();
    await user.until('spots are fanned out', async () => (await user.textOf('Legend')).includes('Home spot'));
    await user.visit('/traces?channel=right&spot=spot-2#distortion');
    await user.sees(/Most at \d+.*%|No harmonic stands clearly above the noise/);
    await user.reads('Legend', /noise floor[\s\S]*harmonic 2[\s\S]*total/);
    await user.reads('Distortion of Right, dB', /1 kHz.*−\d/);
  });

  it('Room figures: octave by octave, speech, and why something is missing', async () => {
    await user.visit('/traces#room-figures');
    await user.sees(/Speech transmission index 0\.\d\d/);
    await user.reads('Room figures', /EDT, s.*0\.\d\d ± 0\.\d\d/);
    await user.sees(/needs \d\d dB and has \d+ dB/);
  });
});
