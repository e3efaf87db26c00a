import { expect, it } from 'vitest';
import { aUser } from '../support/aUser';
import { violations } from '../support/axe';
import { openLevelMap } from '../support/shelf';
import { aes69Beam, polarTable } from '../support/loudspeakerFiles';

const user = aUser();
const OWN = 'One of your own …';
const FILE = 'Directivity of a loudspeaker';
const letGo = () => user.click('//*[name()="text"][contains(., "seen from above")]');
const modelNow = async () => (await user.find('//input[@aria-label="Model"]')).getAttribute('value');
const meanDb = async (): Promise<number> =>
  Number((await user.reads('Over the seats', /Mean\n(-?[\d.]+) dB/))[1]);

it('a loudspeaker from an AES69 file: what it says is looked at, then it plays in the map', async () => {
  await openLevelMap(user);
  const before = await meanDb();
  await user.press('Main left');
  await user.pick('Model', OWN);
  // one of another convention is refused, and says of which
  await user.chooseFile(FILE, await aes69Beam('SimpleFreeFieldHRIR'));
  await user.sees(/heard by a head\.sofa is not taken.*convention SimpleFreeFieldHRIR/);
  await user.chooseFile(FILE, await aes69Beam());
  await user.reads(
    'What was understood',
    /An AES69 file: 614 directions, levels only, 7 frequencies, 125 Hz to 8 kHz/,
  );
  await user.reads('What was understood', /How loud it gets is not known: 90 and 120 dB are assumed/);
  // by its formula: 6 dB down 40 degrees to either side at 1 kHz
  const [, across, upright] = await user.reads('Figures of the polar', /over (\d+)° across, (\d+)° upright/);
  expect(Number(across)).toBeGreaterThanOrEqual(79);
  expect(Number(across)).toBeLessThanOrEqual(81);
  expect(Math.abs(Number(upright) - Number(across))).toBeLessThanOrEqual(1);
  expect(await violations(user)).toEqual([]);
  await user.type('Largest level at 1 m', '150');
  await user.press('Keep it for Main left');
  await user.reads('Loudspeaker', /Loudspeaker/);
  await letGo();
  await user.until('it to be heard', async () => (await meanDb()) > before + 3);
});

it('from a table of polar data, whose gap is told; the name must be its own', async () => {
  await user.press('Main right');
  await user.pick('Model', OWN);
  await user.chooseFile(FILE, polarTable(4));
  await user.sees(/heron with a gap\.txt is not taken.*Between 20° and 70° of the horizontal plane/);
  await user.chooseFile(FILE, polarTable());
  await user.reads('What was understood', /A table of polar data: 70 directions/);
  const [, across, upright] = await user.reads('Figures of the polar', /over (\d+)° across, (\d+)° upright/);
  expect(Math.abs(Number(across) - 100)).toBeLessThanOrEqual(1);
  expect(Math.abs(Number(upright) - 40)).toBeLessThanOrEqual(1);
  await user.type('Name', 'Bittern 10');
  await user.sees('There is a Bittern 10 already');
  await user.type('Name', 'Heron 12');
  await user.press('Keep it for Main right');
  await letGo();
});

it('both are there after a reload, say where they come from, and one is removed and comes back', async () => {
  await user.visit('/plan');
  await user.reads('Over the seats', /181 seats/);
  await user.press('Main right');
  await user.press('How it radiates');
  await user.reads(
    'What it is',
    /A table of polar data.*99 dB for 2\.83 V, 132 dB at the most.*As its file says/,
  );
  await user.press('Remove it');
  await user.until('another model', async () => (await modelNow()) !== 'Heron 12');
  await user.click('//button[starts-with(@aria-label, "Undo: model")]');
  await user.until('it back', async () => (await modelNow()) === 'Heron 12');
  await letGo();
});

it('a guess by kind and size says that it is one', async () => {
  await user.press('Fill left');
  await user.pick('Model', OWN);
  await user.among('Where it comes from', 'A guess');
  await user.pick('Kind', 'coaxial');
  await user.type('Largest cone', '8');
  await user.reads('What was understood', /A guess by kind and size: coaxial, cone of 8 inches/);
  await user.press('Keep it for Fill left');
  await user.press('How it radiates');
  await user.reads('What it is', /A guess by kind and size.*Guessed, not measured/);
  await user.press('Close');
  await letGo();
});
