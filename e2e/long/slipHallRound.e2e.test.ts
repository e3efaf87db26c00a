import { Key } from 'selenium-webdriver';
import { it } from 'vitest';
import { aUser } from '../support/aUser';

const user = aUser();

it('the Slip Hall is rehearsed: a round over fifteen spots', async () => {
  await user.visit('/plan');
  await user.press('Project');
  await user.press('All projects');
  await user.press('Saltmarsh Slip Hall');
  await user.driver.actions().sendKeys(Key.ESCAPE).perform();
  await user.reads('What the plan says', /1994 m³[^]*1\.6 s at 500 Hz[^]*181 seats, 15 spots[^]*8 channels/);
  await user.press('Table');
  // two channels are enough to walk every spot
  for (const name of [
    'Main right',
    'Subs left',
    'Subs right',
    'Fill left',
    'Fill right',
    'Under the gallery',
  ])
    await (await user.find(`//input[@aria-label="${name} fitted"]`)).click();
  await user.reads('What the plan says', /2 channels/);
  await user.click('//a[normalize-space(.)="Rehearse here"]');
  await user.view('Channels');
  await user.type('Test level', '-20');
  await user.click('//a[contains(., "Mic walk")]');
  await user.sees('0 good, of 30');
  await user.press('Take all that are left');
  await user.sees('30 good, of 30', 180_000);
});
