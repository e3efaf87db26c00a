import { Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { aUser } from './support/aUser';
import { violations } from './support/axe';

const user = aUser();

const knob = (label: string) => user.find(`//*[@role="slider"][@aria-label="${label}"]`);
const below = (what: string) => user.among('Below the level', what);
/** So much is heard of something before anybody believes it. */
const settle = async () => {
  await user.press('Restart');
  await new Promise((resolve) => setTimeout(resolve, 2500));
};
const play = async () => {
  const at = '//*[@role="switch"][@aria-label="Play through the device"]';
  await user.until('the device to be fed', async () => (await user.find(at)).isEnabled());
  await user.tick('Play');
};

describe('a mixer on the bench', () => {
  it('is wired as drawn, brought to one level, and compared channel against channel', async () => {
    await user.visit('/live');
    await user.among('What is measured live', 'Electronics');
    await user.reads('Wiring', /Output 8 of the interface to the input of Tidepool 6/);
    expect(await violations(user)).toEqual([]);
    await user.press('Start the session');
    await play();
    await user.reads('What the device does', /Channel B lies 0\.\d\d dB (over|below) channel A/);
    // a channel that is 6 dB down is told, with what to turn
    await below('Front');
    expect(await violations(user)).toEqual([]);
    const fader = await knob('Channel 2 Fader');
    for (let i = 0; i < 12; i++) await fader.sendKeys(Key.ARROW_DOWN);
    await settle();
    const [, apart] = await user.reads(
      'What the device does',
      /Channel B is (\d\.\d\d) dB lower than the other/,
    );
    expect(Math.abs(Number(apart) - 6)).toBeLessThan(0.8);
    for (let i = 0; i < 12; i++) await (await knob('Channel 2 Fader')).sendKeys(Key.ARROW_UP);
    await settle();
    // two low shelves are never quite alike
    for (const channel of [1, 2]) await (await knob(`Channel ${channel} Low, 100 Hz`)).sendKeys(Key.END);
    await user.type('Tolerance of the level', '0.1');
    await settle();
    await user.reads('What the device does', /outside the tolerance/);
    for (const channel of [1, 2]) {
      const low = await knob(`Channel ${channel} Low, 100 Hz`);
      await user.driver.actions().doubleClick(low).perform();
    }
    await user.press('As delivered');
  });

  it('its noise, distortion and latency are measured by themselves', async () => {
    await user.press('Measure');
    const [, noise] = await user.reads('Figures of the device', /Noise\s+(−|-)?(\d+\.\d) dBFS/);
    expect(noise).toBe('-');
    await user.reads('Figures of the device', /Distortion\s+(< )?0\.0\d+ %/);
    const [, latency] = await user.reads('Figures of the device', /Latency\s+(-?\d\.\d{3}) ms/);
    expect(Math.abs(Number(latency))).toBeLessThan(0.05);
  });

  it('a server that does not answer for a moment ends no session, and what was turned meanwhile is heard', async () => {
    await play();
    await settle();
    await below('Front');
    await user.goOffline(true);
    const fader = await knob('Channel 2 Fader');
    for (let i = 0; i < 12; i++) await fader.sendKeys(Key.ARROW_DOWN);
    await new Promise((resolve) => setTimeout(resolve, 600));
    await user.goOffline(false);
    await user.reads('What the device does', /Channel B is [56]\.\d\d dB lower than the other/);
    expect(await user.driver.findElements({ xpath: '//*[@role="alert"]' })).toEqual([]);
    await user.press('As delivered');
    await user.tick('Play');
  });

  it('a knob at both its ends is read, held against what is published, and goes out as a table', async () => {
    await play();
    await settle();
    await user.press('Keep as flat');
    await user.reads('Read the curve', /Read over Tidepool 6, Channel A/);
    await (await knob('Channel 1 Middle')).sendKeys(Key.END);
    await settle();
    await user.press('Read this curve');
    await user.reads('What was read', /leaves .* of the curve unexplained/);
    const figures = await user.textOf('Shapes read from the curve');
    const hz = Number(/frequency[^\d]*([\d.]+) kHz/.exec(figures)![1]);
    const gain = Number(/gain[^\d]*([\d.]+) dB/.exec(figures)![1]);
    // printed: 15 dB at 1 kHz; its parts have tolerances
    expect(Math.abs(hz - 1)).toBeLessThan(0.16);
    expect(Math.abs(gain - 15)).toBeLessThan(1.6);
    for (const [figure, value] of [
      ['frequency', '1000'],
      ['gain', '15'],
      ['q', '0.7'],
    ] as const)
      await user.type(`Shape 1: published ${figure}`, value);
    await user.reads('What was read', /of 4 published figures/);
    await user.type('Family of the reading', 'Middle');
    // the other end of the same knob
    await below('Front');
    await (await knob('Channel 1 Middle')).sendKeys(Key.HOME);
    await settle();
    await user.press('Read this curve');
    const [, mirror] = await user.reads('What was read', /mirror image within (\d+\.\d\d) dB/);
    expect(Number(mirror)).toBeLessThan(0.2);
    expect(await violations(user)).toEqual([]);
    await user.press('Export: Tidepool 6, Channel A: 1 mid −15');
    await user.press('Save as CSV');
    const table = (await user.download(/mid-15\.csv$/)).bytes.toString();
    expect(table).toMatch(/^Shape,Figure,Published,Found,Two standard errors,Difference,Tolerance,Verdict/);
    expect(table).toMatch(/Peaking section,frequency,1 kHz,[\d.]+ k?Hz,/);
    await user.press('Stop the session');
  });
});

describe('shapes by hand, in the library', () => {
  it('are a trace of their own, moved by keys and typed, and read back as they were set', async () => {
    await user.click('//section[@aria-label="Kept traces"]//a');
    await user.press('New trace of shapes');
    await user.reads('Chosen trace', /\+6\.0 dB at 1 kHz, Q 1 \(/);
    const handle = await user.find('//*[@role="slider"][@aria-label="Peaking section 1"]');
    await handle.sendKeys(Key.chord(Key.SHIFT, Key.ARROW_UP), Key.ARROW_RIGHT);
    await user.reads('Chosen trace', /\+7\.0 dB at 1\.01 kHz/);
    // nearer and further off by keys; 0 shows all
    const plot = await user.find('//*[@role="application"][@aria-label="Level of the traces"]');
    expect(await plot.getText()).toContain('20k');
    await plot.sendKeys('+++');
    await user.until('a part of the band', async () => !(await plot.getText()).includes('20k'));
    await plot.sendKeys('0');
    await user.until('all of it', async () => (await plot.getText()).includes('20k'));
    await user.type('Frequency of shape 1', '1234.5');
    await user.type('Bandwidth of shape 1', '0.5');
    await user.reads('Chosen trace', /dB at 1\.23 kHz, Q 2\.87 \(0\.5 octaves\)/);
    await user.press('Read its shapes');
    await user.reads('What was read', /leaves less than 0\.01 dB/);
    const figures = await user.textOf('Shapes read from the curve');
    expect(figures).toMatch(/gain[^\d]*\+7\.00 dB/);
    expect(figures).toMatch(/q[^\d]*2\.87/);
    expect(await violations(user)).toEqual([]);
    await user.click('//button[starts-with(@aria-label, "Undo")]');
    await user.click('//button[starts-with(@aria-label, "Undo")]');
    await user.reads('Chosen trace', /dB at 1\.23 kHz, Q 1 \(/);
  });

  it('act on a trace, and are taken off with one press', async () => {
    await user.click('(//button[contains(@class, "trace-row")][contains(., "over flat")])[1]');
    await user.click('//summary[normalize-space(.)="Put it behind shapes"]');
    await user.click('//section[@aria-label="Chosen trace"]//button[normalize-space(.)="Add a shape"]');
    await user.choose('Shape 1', 'High-pass');
    await user.choose('Line of the trace', 'dashed');
    await user.reads('Chosen trace', /Behind shapes/);
    await user.press('As it was');
    await user.reads('Chosen trace', /Put it behind shapes/);
  });
});
