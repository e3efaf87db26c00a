import { expect, it } from 'vitest';
import { aUser, DRAWS_IN_THREE } from '../support/aUser';
import { violations } from '../support/axe';
import { hallObj, hallWithWindow, vaultObj } from '../support/drawings';

const user = aUser(DRAWS_IN_THREE);

const layUnder = async (path: string) => {
  await user.chooseFile('Picture or drawing by others', path);
  await user.reads('What was understood', /OBJ/);
};
const asTheRoom = async () => {
  await user.click(
    '//section[@aria-label="The room"]//button[@aria-haspopup="menu"][not(contains(., "Materials"))]',
  );
  await user.click('//*[@role="menuitem"][contains(., "A drawing under the plan as the room")]');
};

it('a leaky drawing is mended, modelled in place of what is drawn, and left again', async () => {
  await user.visit('/plan');
  await layUnder(hallWithWindow());
  await user.press('Lay it under');
  await user.reads('Drawing by others', /shown/);
  await user.visit('/room-model');
  await asTheRoom();
  await user.reads('What was found', /faces in 6 surfaces around 66\d m³/);
  await user.reads('What was found', /2 doubled faces left out; 1 flat hole closed, 0\.80 m²/);
  await user.reads('What was found', /Nothing is wrong with it/);
  expect(await violations(user)).toEqual([]);
  await user.press('Use it');
  // its surfaces by their names, each with its area
  await user.reads('Surfaces', /Left\s+56[^]*Roof\s+144/);
  await user.reads('The room', /hall with a window/);
  await user.choose('What Roof is made of', 'Gypsum board, 13 mm on studs');
  await user.find('//button[starts-with(@aria-label, "Undo: Roof: Gypsum")]');
  await user.driver.navigate().refresh();
  await user.reads('Surfaces', /Roof\s+144/);
  await user.press('Undo: Roof: Gypsum board, 13 mm on studs');
  await user.press('Undo: hall with a window as the room');
  await user.reads('The room', /as drawn/);
});

it('what cannot be mended is told with its place, before it is used', async () => {
  await user.visit('/plan');
  await layUnder(hallObj(['Left']));
  await user.press('Lay it under');
  await user.visit('/room-model');
  await asTheRoom();
  await user.choose('Drawing', 'gable hall');
  await user.reads('What was found', /% of the rays get out of the room, one of them near x [\d.]+ m/);
  await user.find('//button[normalize-space(.)="Use it all the same"]');
  await user.press('Cancel');
  await user.reads('The room', /as drawn/);
});

it('a vault gathers sound: from how many of its sides, and what that gains, at each spot', async () => {
  await user.visit('/plan');
  await layUnder(vaultObj());
  await user.press('Lay it under');
  await user.visit('/room-model');
  await asTheRoom();
  await user.choose('Drawing', 'vault');
  await user.reads('What was found', /29 faces in 4 surfaces/);
  await user.press('Use it');
  await user.press('New run');
  await user.choose('What sounds', 'a point source');
  await user.choose('Heard at', 'the spots');
  await user.choose('How sure', 'quick: times to within two differences that one would notice');
  await user.press('Run');
  await user.among('What is asked', 'Does it echo?');
  const [, arrivals, gain] = await user.reads(
    'What it says',
    /Curved, Vault gathers sound here: (\d+) arrivals within [\d.]+ ms, .* together ([\d.]+) dB above one flat wall/,
  );
  // as many that are alike would gain ten lg of their number
  expect(Number(arrivals)).toBeGreaterThanOrEqual(3);
  expect(Number(gain)).toBeLessThanOrEqual(10 * Math.log10(Number(arrivals)) + 0.05);
});
