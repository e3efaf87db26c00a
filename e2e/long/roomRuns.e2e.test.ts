import { readFileSync } from 'node:fs';
import { readAes69Responses } from '@pebble-hall/core/formats';
import { Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { aUser } from '../support/aUser';
import { violations } from '../support/axe';
import { ballHead, notAHead } from '../support/heads';
import { openShelved } from '../support/shelf';
import { User } from '../support/user';

const user = aUser();

/** Share of its rays that a run has, as its name in the list tells; 100 when it is whole. */
const share = async (of = user) => {
  const text = await of.driver.executeScript<string>(
    'return document.querySelector("[aria-label=Run]")?.selectedOptions[0]?.textContent ?? "· 0 %"',
  );
  return Number(/· (\d+) %/.exec(text)?.[1] ?? 100);
};
const isWhole = (of = user) => of.until('the run is whole', async () => (await share(of)) === 100);
const sti = async (of = user) => Number((await of.reads('What it says', /STI (\d\.\d+)/))[1]);
const t30 = async (of = user) => Number((await of.reads('What it says', /T30 ([\d.]+) s/))[1]);

describe('a run in the Slip Hall', () => {
  it('from a talker to some seats: figures as statistics lead one to expect, with how sure they are', async () => {
    await openShelved(user, 'Saltmarsh Slip Hall', 'the Slip Hall');
    await user.visit('/room-model');
    const ring = Number((await user.reads('What it says', /It rings for ([\d.]+) s/))[1]);
    // under its ridge as well
    await user.reads('Modes', /^7\.\d+ Hz front to back/m);
    await user.press('New run');
    await user.choose('Heard at', 'a few seats');
    await user.choose('How sure', 'quick: times to within two differences that one would notice');
    await user.sees(/rays from each of 1 source, in 10 groups, to 12 receivers/);
    // its numbers can be typed over, and go back to what is suggested
    await user.click('//summary[contains(., "Rays, length")]');
    const told = async () => (await user.find('//small[contains(., "rays from each")]')).getText();
    const suggested = await told();
    await user.type('Rays from each source', '60000');
    await user.type('By mirrors alone, up to', '9');
    await user.type('Responses last', '1.2');
    await user.sees(/60,000 rays from each .* responses of 1.2 s; as from mirrors up to [4-6] faces/);
    expect(await violations(user)).toEqual([]);
    await user.press('As suggested');
    expect(await told()).toBe(suggested);
    await user.press('Run');
    await isWhole();
    // two hard walls that face each other ring longer than statistics know
    expect(await t30()).toBeGreaterThan(0.9 * ring);
    expect(await t30()).toBeLessThan(1.7 * ring);
    expect(await sti()).toBeGreaterThan(0.35);
    expect(await sti()).toBeLessThan(0.75);
    await user.sees(/Room model\s+1 run/);
    await user.reads('What it says', /Trust .*needs \d+ times the rays|Trust all of it/);
    expect(await violations(user)).toEqual([]);
  });

  it('is stepped through by keys: seats, figures, octaves, and ways to see them', async () => {
    await user.click('//h2[text()="What is shown"]');
    const body = await user.find('//body');
    await user.reads('Where', /1 of 12/);
    await body.sendKeys('n');
    await user.reads('Where', /2 of 12/);
    await body.sendKeys('b');
    await user.reads('Where', /1 of 12/);
    await body.sendKeys('f');
    await user.find('//*[contains(@aria-label, "Reverberation time T30 over octaves")]');
    await body.sendKeys('v');
    await user.find('//*[@role="img"][starts-with(@aria-label, "decay at")]');
    await body.sendKeys('o');
    await user.find('//*[@role="img"][contains(@aria-label, "63 Hz")]');
    // a figure at every seat, in the drawing, is chosen there, too
    await user.click('(//*[@role="button"][contains(@aria-label, ", seat")])[3]');
    await user.until('another seat', async () => !/^1 of/.test(await user.textOf('Where')));
    const saved = async () => {
      await user.press('Export: Run 1: figures');
      await user.press('Save as CSV');
      return (await user.download(/Run-1-figures.*\.csv$/)).bytes.toString();
    };
    const lines = (await saved()).trim().split(/\r?\n/);
    expect(lines).toHaveLength(13);
    expect(lines[0]).toMatch(/^Receiver,STI,"Even, early, %","Even, late, %","?T30 63 Hz, s/);
  });

  it('goes on while one works elsewhere, is stopped and gone on with, and survives a reload', async () => {
    await user.press('This run');
    await user.press('Four times the rays');
    await user.until('it goes on', async () => (await share()) < 100);
    await user.visit('/plan');
    await user.sees('Tracing Run 1');
    await user.press('Cancel: Tracing Run 1');
    await user.lacks('Tracing Run 1');
    await user.visit('/room-model');
    await user.reads('What it says', /% of its rays are there; it was stopped/);
    const stopped = await share();
    expect(stopped).toBeGreaterThan(20);
    expect(stopped).toBeLessThan(100);
    await user.press('This run');
    await user.press('Go on');
    await user.until('it goes on', async () => (await share()) > stopped);
    await user.visit('/room-model');
    // what is there is not traced again
    await user.until('it is there again', async () => (await share()) >= stopped);
    await isWhole();
    await user.among('What is asked', 'Can it be believed?');
    await user.reads('Rays', /in 40 groups/);
    await user.reads('What it says', /No ray got out/);
  });
});

describe('a treated wall', () => {
  it('makes the run stale; run again it rings shorter beside the first', async () => {
    await user.among('What is asked', 'How does it sound?');
    const before = { sti: await sti(), t30: await t30() };
    await user.among('What is asked', 'How long does it ring?');
    for (const wall of ['Folding doors, timber', 'Left wall, brick']) {
      await user.click(`//*[@role="button"][@aria-label="${wall}"]`);
      await user.choose(`What ${wall} is made of`, 'Drape, heavy, draped to half');
    }
    await user.sees(/Room model\s+room changed/);
    await user.among('What is asked', 'How does it sound?');
    await user.reads('What it says', /Left wall, brick, Folding doors, timber swallow or scatter otherwise/);
    await user.press('Run it again');
    await isWhole();
    await user.reads('What it says', /Run 1: \d/);
    expect(await t30()).toBeLessThan(0.95 * before.t30);
    expect(await sti()).toBeGreaterThan(before.sti);
    await user.lacks('Run it again');
    await user.among('What is asked', 'Does it echo?');
    await user.reads('What it says', /At (none|\d+) of 12 seats/);
    await user.among('Signal', 'music');
    await user.find('//*[@role="img"][contains(@aria-label, "music")]');
    expect(await violations(user)).toEqual([]);
  });

  it('is heard before and after, and its response is saved', async () => {
    await user.among('What is asked', 'How does it sound?');
    // the card may move under the hand while figures come in
    await user.until('it plays', async () => {
      const card = await user.textOf('Listen');
      if (card.includes('at matched loudness') && !card.includes('Stop')) await user.press('Play');
      return card.includes('Stop');
    });
    await user.among('Which run is heard', 'Run 1');
    await user.press('Stop');
    await user.reads('Listen', /Play/);
    const save = async (form: string) => {
      await user.press('Save the response …');
      await user.click(`//*[@role="menuitem"][normalize-space(.)="${form}"]`);
    };
    await save('First-order ambisonics (ACN, SN3D), WAV');
    const { bytes: four } = await user.download(/ambisonics\.wav$/);
    expect(four.readUInt16LE(22)).toBe(4);
    await save('One ear, copied as text');
    await user.sees(/The response at .*: copied\.|does not allow copying here/);
    await save('Two ears, AES69');
    const { path: set } = await user.download(/two ears\.sofa$/);
    const { responses } = await readAes69Responses(new Uint8Array(readFileSync(set)));
    expect(responses).toHaveLength(2);
    await save('Two ears, WAV');
    const { bytes } = await user.download(/two ears\.wav$/);
    expect(bytes.subarray(0, 4).toString()).toBe('RIFF');
    expect(bytes.length).toBeGreaterThan(4 * 48_000);
    // the same with the ears of a head from a file
    await user.chooseFile('Head as an AES69 file', notAHead());
    await user.sees(/no head\.sofa: This is no AES69 file/);
    await user.chooseFile('Head as an AES69 file', await ballHead());
    await user.find('//select[@aria-label="Ears"]/option[.="ears of A ball"]');
    await save('Ears of A ball, WAV');
    const { bytes: own } = await user.download(/ears of A ball\.wav$/);
    expect(own.readUInt16LE(22)).toBe(2);
    expect(own.equals(bytes)).toBe(false);
    await user.driver.navigate().refresh();
    await user.find('//select[@aria-label="Ears"]/option[.="ears of A ball"]');
    await user.press('Undo: head A ball');
  });

  it('is carried with its rays in a project file to an empty browser', async () => {
    // where another browser begins
    await user.choose('Receiver', 'Mix place');
    await user.reads('Where', /1 of 12/);
    const figures = { sti: await sti(), t30: await t30() };
    await user.press('Project');
    await user.press('Save project file');
    const { path } = await user.download(/\.pebble\.zip$/);
    const other = await User.at(user.url);
    try {
      await other.visit('/');
      await other.sees('Net Loft');
      await other.press('Project');
      await other.openProjectFile(path);
      await other.sees('the Slip Hall');
      await other.visit('/room-model');
      await other.among('What is asked', 'How does it sound?');
      expect(await share(other)).toBe(100);
      expect(await sti(other)).toBe(figures.sti);
      expect(await t30(other)).toBe(figures.t30);
    } finally {
      await other.close();
    }
  });
});

describe('voice first', () => {
  it('proposes gain and delay with which the talker is heard from at every seat, and tells what falls out when they are edited', async () => {
    await user.among('What is asked', 'Is the voice first?');
    const [, now, of] = await user.reads(
      'What it says',
      /heard first at (\d+) of (\d+) seats; as proposed at all of them/,
    );
    expect(Number(now)).toBeLessThan(Number(of));
    expect(await violations(user)).toEqual([]);
    await user.type('Delay of Fill left', '0');
    await user.reads('What it says', /Out of the window: /);
    await user.find('//*[@role="button"][contains(@aria-label, ": a loudspeaker")]');
    await user.press('As proposed');
    await user.reads('What it says', /as proposed at all of them/);
    // as loud as the voice, and no louder
    await user.type('Louder than the talker by', '0');
    await user.reads('What it says', /all of them 0 dB (softer|louder): the talker is heard first/);
  });

  it('is taken over as a variant, and run before and after', async () => {
    await user.type('Louder than the talker by', '8');
    await user.press('Run before and after');
    await user.sees(/Variant Voice first has it/);
    await user.among('What is asked', 'How does it sound?');
    // some of its rays will do here
    await user.until('some of its rays', async () => (await share()) > 5);
    await user.reads('What it says', /Voice first, before: \d/);
    // set like this nothing is left to propose: the talker is heard first as it is
    await user.among('What is asked', 'Is the voice first?');
    const [, now, of] = await user.reads('What it says', /heard first at (\d+) of (\d+) seats/);
    expect(now).toBe(of);
  });
});

it('the Net Loft is modelled at its spots, compared with its walk, and tuned to it', async () => {
  await openShelved(user, 'Saltmarsh Boathouse, finished', 'the Net Loft');
  await user.visit('/room-model');
  await user.among('What is asked', 'How long does it ring?');
  await user.reads('What it says', /Measured at 3 spots it rings for/);
  await user.press('New run');
  await user.press('as the walk was swept, Left to the spots');
  await user.sees(/rays from each of 1 source, in \d+ groups, to 3 receivers/);
  await user.press('Run');
  await isWhole();
  const times: { swept: number; modelled: number }[] = [];
  for (let at = 1; at <= 3; at++) {
    await user.reads('Where', new RegExp(`${at} of 3`));
    const [, swept, modelled] = await user.reads(
      'What it says',
      /Measured and modelled here: T20 ([\d.]+) s and ([\d.]+) s[^]*Left was swept here, and is what the run plays from/,
    );
    times.push({ swept: Number(swept), modelled: Number(modelled) });
    await (await user.find('//body')).sendKeys('n');
  }
  const mean = (of: 'swept' | 'modelled') => times.reduce((sum, t) => sum + t[of], 0) / 3;
  expect(Math.abs(mean('modelled') / mean('swept') - 1)).toBeLessThan(0.1);
  await user.among('What is asked', 'How long does it ring?');
  await user.press('Tune the surfaces to the walk');
  await user.type('May be wrong by', '150');
  const table = await user.textOf('Tuned surfaces');
  const row = (name: string) => {
    const line = table.split('\n').find((l) => l.startsWith(name))!;
    return line.slice(name.length).trim().split(/\s+/).map(Number);
  };
  const [measured, after] = [row('Measured, s'), row('Modelled after, s')];
  // from 250 Hz to 4 kHz, where the walk tells it well
  for (let o = 2; o <= 6; o++) expect(Math.abs(after[o]! / measured[o]! - 1)).toBeLessThan(0.03);
  expect(await violations(user)).toEqual([]);
  await user.press('Use them');
  await user.sees(/Room model\s+room changed/);
  // both are kept, and each is a press away
  await user.reads('The room', /Variant: Tuned to the walk/);
  await user.press('Variant: Tuned to the walk');
  await user.press('Before tuning');
  await user.reads('The room', /Variant: Before tuning/);
  await user.sees(/Room model\s+1 run/);
  await user.press('Variant: Before tuning');
  await user.press('Tuned to the walk');
  await user.sees(/Room model\s+room changed/);
  await user.press('Undo: surfaces: Tuned to the walk');
  await user.press('Undo: surfaces: Before tuning');
  await user.click('//button[starts-with(@aria-label, "Undo: surfaces tuned")]');
  await user.sees(/Room model\s+1 run/);
});

it('along a line to the rear: a figure over the distance, beside what a hall of its size is expected to give', async () => {
  await user.press('New run');
  await user.choose('What sounds', 'a point source');
  await user.choose('Heard at', 'a line to the rear');
  await user.choose('How sure', 'quick: times to within two differences that one would notice');
  await user.press('Run');
  await isWhole();
  await user.among('What is asked', 'How does it sound?');
  await user.among('Seen as', 'distance');
  await user.choose('Figure', 'Strength G');
  // lows are told by waves, and modes are as strong at the wall behind
  await user.choose('Octave', 'mean');
  await user.find('//*[@role="group"][@aria-label="Strength G over the distance"]');
  await user.sees('dotted: expected, after Barron and Lee');
  const point = (at: number) => `(//*[@aria-label="Strength G over the distance"]//*[@role="button"])[${at}]`;
  const strength = async (at: number) =>
    Number(
      /: (\S+) dB/
        .exec((await (await user.find(point(at))).getAttribute('aria-label'))!)![1]!
        .replace('\u2212', '-'),
    );
  expect(await strength(1)).toBeGreaterThan((await strength(12)) + 2);
  await user.click(point(12));
  await user.reads('Where', /12 of 12/);
  expect(await violations(user)).toEqual([]);
});

it('traced by the server: an instrument over a grid, with its lows as waves', async () => {
  await user.press('New run');
  await user.choose('What sounds', 'trombone');
  await user.choose('Heard at', 'a grid over the audience');
  await user.choose('How sure', 'quick: times to within two differences that one would notice');
  await user.choose('Traced by', 'the server of Pebble Hall, in threads of its own');
  await user.press('Run');
  await isWhole();
  await user.among('What is asked', 'How does it sound?');
  await user.choose('Figure', 'Evenness of directions, after 80 ms');
  await user.reads('What it says', /Even, late goes from \d+ % at Grid \d+ to \d+ %/);
  await user.among('Seen as', 'lows');
  const [, upTo, least] = await user.reads(
    'What it says',
    /Below (\d+) Hz single modes are heard, so waves are worked out: least here at ([\d.]+) Hz/,
  );
  expect(Number(least)).toBeLessThan(Number(upTo));
  await user.choose('Figure', 'Direct sound of one source');
  await user.sees('dashed: 6 dB below the loudest seat');
  expect(await violations(user)).toEqual([]);
});

it('a talker outside, or nobody who hears, is told before anything runs', async () => {
  await user.press('New run');
  await user.choose('What sounds', 'a talker and loudspeakers');
  await user.type('Source x', '40');
  await user.sees('Talker is outside the room. Move it in.');
  await user.sees('Run it all the same');
  await user.keys(await user.find('//body'), Key.ESCAPE);
  await user.lacks('Run it all the same');
});
