import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { aUser } from '../support/aUser';
import { violations } from '../support/axe';
import { libraryRows } from '../support/libraryRows';

const user = aUser();

const play = async () => {
  await user.until('a session', async () =>
    (await user.find('//input[@aria-label="Play the generator"]')).isEnabled(),
  );
  await user.click('//section[@aria-label="Generator"]//label[normalize-space(.)="Play"]');
};
const { choose } = libraryRows(user);
/** Waits until so many seconds of the session have gone by: four times as fast as sound. */
const heard = (seconds: number) => new Promise((resolve) => setTimeout(resolve, (1000 * seconds) / 4));

/** Level of samples at a frequency, by the sum itself. */
function levelAt(samples: Float32Array, rate: number, hz: number): number {
  let [re, im] = [0, 0];
  const turn = (-2 * Math.PI * hz) / rate;
  for (let i = 0; i < samples.length; i++) {
    re += samples[i]! * Math.cos(turn * i);
    im += samples[i]! * Math.sin(turn * i);
  }
  return 20 * Math.log10(Math.hypot(re, im));
}

/** A figure with its unit. */
const number = (text: string | null) => Number((text ?? '').replace('\u2212', '-').replace(/[^\d.-]/g, ''));

const MAIN = 'Microphone: Left (memory A)';
const SUB = 'Microphone: Sub 1 (memory A)';
const BOTH = 'Microphone: Left + Sub 1 (memory A)';

describe('the library', () => {
  it('main and subwoofer, each measured live and kept, are summed and held against both together', async () => {
    await user.visit('/live');
    await user.press('Start the session');
    await play();
    await user.reads('What is heard', /Microphone is [\d.]+ ms after the loopback/);
    await user.press('Find');
    await user.reads('What is heard', /holds still/);
    // the longer it is averaged, the less the room's noise counts
    await user.choose('Averaged over', 'all since restarted');
    const keep = async (count: number) => {
      // what played before has died away, and the room has answered for long enough
      await heard(12);
      await user.press('Restart');
      // a machine that is busy hears less in that time: enough for it, too
      await heard(40);
      await user.press('Keep');
      await user.reads('Kept traces', new RegExp(`${count} in Traces`));
    };
    await keep(1);
    await user.choose('Channel', 'Sub 1');
    await keep(2);
    await user.choose('Channel', 'Left');
    await user.choose('Second channel', 'Sub 1');
    await keep(3);
    await user.press('Stop the session');

    await user.click('//section[@aria-label="Kept traces"]//a');
    await choose(MAIN, SUB);
    await user.choose('Computation', 'Sum');
    await user.reads('Compute', new RegExp(`Sum of .*Left.* and .*Sub 1`));
    await user.press('Add to the library');
    await user.reads('Chosen trace', /Sum of/);
    const sum = `Sum of ${MAIN} and ${SUB}`;
    await choose(sum, BOTH);
    // in the band that both play
    await user.type('Alike to', '160');
    const [, mean, shape, phase] = await user.reads(
      'How alike',
      /lies ([+\u2212]?[\d.]+) dB over .*differ by ([\d.]+) dB RMS, phases by (\d+)° RMS/,
    );
    expect(Math.abs(Number(mean!.replace('\u2212', '-')))).toBeLessThan(0.5);
    // each of the three was measured by itself, in the room's noise
    expect(Number(shape)).toBeLessThan(1.5);
    // where they nearly cancel, a little noise turns the phase far
    expect(Number(phase)).toBeLessThan(30);
  });

  it('the same three in Align: what was predicted of two is held against both together, stored or heard now', async () => {
    await user.click('//nav//a[@href="/align"]');
    await user.choose('Stands still', MAIN);
    await user.choose('Is brought to it', SUB);
    await user.press('Bring them together');
    await user.choose('Measured together', `measured: ${BOTH}`);
    // each was measured by itself, in the room's noise
    await user.reads('What it says', /is (as predicted, within|not as predicted:) [01]\.\d dB/);
    await user.click('//section[@aria-label="Setting"]//label[normalize-space(.)="inverted"]');
    await user.reads('What it says', /is not as predicted: ([2-9]|\d\d)\.\d dB/);
    await user.press('Undo: polarity');
    await user.click('//nav//a[@href="/live"]');
    await user.press('Start the session');
    await play();
    await heard(30);
    await user.click('//nav//a[@href="/align"]');
    await user.choose('Measured together', 'from Live, as it is now');
    await user.reads('What it says', /is (as predicted, within|not as predicted:) [01]\.\d dB/);
    await user.press('Undo: measured together');
    await user.click('//nav//a[@href="/live"]');
    await user.choose('Second channel', 'alone');
    await user.choose('Channel', 'Sub 1');
    await heard(12);
    await user.press('Restart');
    await heard(40);
    // what Live hears of the subwoofer now is brought to what was kept of the main
    await user.click('//nav//a[@href="/align"]');
    await user.press('Add a step');
    await user.choose('Stands still', MAIN);
    await user.choose('Is brought to it', 'Microphone, live');
    await user.press('Bring them together');
    await user.reads('What it says', /Microphone, live is (early|late|in time)/);
    const best = async () =>
      Number(
        /1\. (\u2212?[\d.]+) ms/
          .exec(await user.textOf('Ways to bring them together'))?.[1]
          ?.replace('\u2212', '-') ?? NaN,
      );
    await user.until('a way', async () => Number.isFinite(await best()));
    const wanted = await best();
    await user.click('//*[@role="group"][@aria-label="Ways to bring them together"]/button[1]');
    await user.until(
      'its delay',
      async () => Math.abs(number(await (await user.field('Delay')).getAttribute('value')) - wanted) < 0.3,
    );
    await user.click('//nav//a[@href="/live"]');
    await user.press('Stop the session');
    await user.click('//nav//a[@href="/align"]');
    await user.click('//button[@role="tab"][contains(., "live")]');
    await user.sees('Start the session in Live, and play it alone');
    await user.click('//nav//a[@href="/live"]');
    await user.click('//section[@aria-label="Kept traces"]//a');
  });

  it('a source that is removed leaves its sum broken, in plain words, until that is undone', async () => {
    await choose(SUB);
    await user.press('Remove');
    await choose(`Sum of ${MAIN} and ${SUB}`);
    await user.reads('Chosen trace', /A trace that it rests on is gone/);
    await user.press('Undo: trace removed');
    await user.until('the sum', async () => !/is gone/.test(await user.textOf('Chosen trace')));
    // what the eye changes is seen in the sum, and taken back by one press
    await choose(SUB);
    await user.tick('inverted');
    await choose(`Sum of ${MAIN} and ${SUB}`, BOTH);
    await user.reads('How alike', /differ by ([2-9]|\d\d)\.\d dB RMS/);
    await choose(SUB);
    await user.press('As it was');
    expect(await violations(user)).toEqual([]);
  });

  it('as an impulse response it goes out, and comes back from WAV, FLAC and text the same', async () => {
    await choose(MAIN);
    await user.press('Export');
    await user.press('Impulse response, WAV');
    const wav = await user.download(/^Microphone.*\.wav$/);
    await user.press('Export');
    await user.press('Impulse response, text');
    const text = await user.download(/^Microphone.*\.ir\.txt$/);
    expect(text.bytes.toString()).toMatch(/# sample rate: 48000 Hz\n# time zero at sample 32768/);
    const folder = mkdtempSync(join(tmpdir(), 'impulse-'));
    const paths = [
      join(folder, 'as sound.wav'),
      join(folder, 'as flac.flac'),
      join(folder, 'as numbers.txt'),
    ];
    writeFileSync(paths[0]!, wav.bytes);
    // another program reads the same response out of the sound file as stands in the text, point by point
    await user.press('Export');
    await user.press('Text');
    const rows = (await user.download(/^Microphone(?!.*\.ir).*\.txt$/)).bytes.toString().split('\n');
    const raw = spawnSync('sox', [paths[0]!, '-t', 'f32', '-'], { maxBuffer: 1 << 26 }).stdout;
    const samples = new Float32Array(raw.buffer.slice(raw.byteOffset, raw.byteOffset + raw.length));
    const told = rows
      .map((row) => row.split('\t').map(Number) as [number, number])
      .filter(([hz]) => hz > 100 && hz < 10_000);
    // in its dips, where next to nothing arrives, what lies between two points counts for more than either
    const loudest = Math.max(...told.map(([, db]) => db));
    const apart = told
      .filter(([, db]) => db > loudest - 20)
      .map(([hz, db]) => levelAt(samples, 48_000, hz) - db);
    expect(apart.length).toBeGreaterThan(200);
    const rms = Math.hypot(...apart) / Math.sqrt(apart.length);
    console.log(`sox and the text: ${rms.toFixed(4)} dB RMS over ${apart.length} points`);
    expect(rms).toBeLessThan(0.05);
    // another program turns it into FLAC, of 24 bits and at twice the rate: as a response half as high
    const made = spawnSync('sox', [paths[0]!, '-b', '24', paths[1]!, 'rate', '-v', '96000', 'vol', '0.5']);
    expect(made.status).toBe(0);
    writeFileSync(paths[2]!, text.bytes);
    await user.chooseFile('Files to import', paths.join('\n'));
    await user.sees('Import 3 files');
    await user.reads('as flac.flac', /Impulse response, one channel of 5\.461 s\s+at 96 kHz/);
    // the comment is gone with the FLAC: time zero is set by hand to where it was
    await user.choose('Time zero of as flac.flac', 'by hand');
    await user.type('Time zero of as flac.flac in ms', String((1000 * 32_768) / 48_000));
    await user.press('Import 3 traces');
    for (const name of ['as sound', 'as flac', 'as numbers']) {
      await choose(name, MAIN);
      await user.type('Alike from', '60');
      await user.type('Alike to', '10000');
      const [, mean, shape, phase] = await user.reads(
        'How alike',
        /lies ([+\u2212]?[\d.]+) dB over .* differ by ([\d.]+) dB RMS, phases by (\d+)° RMS/,
      );
      // what the library holds of a rough curve are points; between them nobody knows it
      expect(Math.abs(Number(mean!.replace('\u2212', '-')))).toBeLessThan(1);
      expect(Number(shape)).toBeLessThan(2.5);
      expect(Number(phase)).toBeLessThan(25);
    }
  });

  it('goes out as text with everything known in its head, and the project carries all to an empty browser', async () => {
    await choose(MAIN);
    await user.press('Export');
    await user.press('Text');
    const { bytes } = await user.download(/^Microphone(?!.*\.ir).*\.txt$/);
    const text = bytes.toString();
    expect(text).toMatch(/^# Microphone: Left \(memory A\)\n# Saltmarsh/);
    expect(text).toContain('# Measured live');
    expect(text).toContain('# frequency in Hz\tlevel in dB\tphase in degrees\tcoherence');
    const rows = text.split('\n').filter((l) => /^\d/.test(l));
    expect(rows.length).toBeGreaterThan(400);

    await user.press('Project');
    await user.press('Save project file');
    const project = join(mkdtempSync(join(tmpdir(), 'project-')), 'carried.pebble.zip');
    writeFileSync(project, (await user.download(/\.pebble\.zip$/)).bytes);
    const { origin } = new URL(await user.driver.getCurrentUrl());
    await user.close();
    await user.open(origin);
    await user.visit('/');
    await user.openProjectFile(project);
    await user.visit('/traces');
    await choose(`Sum of ${MAIN} and ${SUB}`, BOTH);
    await user.reads('How alike', /dB RMS, phases by \d+° RMS/);
  });
});
