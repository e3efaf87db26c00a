import { Key, Origin } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { aUser } from '../support/aUser';

const user = aUser();

const spots = async () =>
  (
    await user.driver.findElements({
      xpath: '//*[@role="button"][contains(@aria-label, ", not taken") or contains(@aria-label, ", taken")]',
    })
  ).length;

describe('spot plans', () => {
  it('are shown before they are laid out, by seats and spread, and undo takes them back', async () => {
    await user.visit('/mic-walk');
    await user.sees('0 good, of 28');
    await user.press('Spot plan');
    await user.tick('Block, 15');
    await user.tick('Chair by the door');
    await user.sees('15 spots over a whole block of seats');
    await user.tick('Seat, 7');
    await user.type('Spread', '10');
    await user.sees(/stands? so close that the second spot adds little/);
    await user.type('Spread', '40');
    await user.sees('Spots that have sweeps stay');
    await user.press('Lay out 7 spots');
    await user.sees('0 good, of 49');
    expect(await spots()).toBe(7);
    await user.press('Undo: spot plan Seat');
    await user.sees('0 good, of 28');
    await user.press('Redo: spot plan Seat');
    await user.sees('0 good, of 49');
  });

  it('spots are dragged, renamed, weighted, removed, and seen from the side', async () => {
    const second = await user.find('//*[@role="button"][starts-with(@aria-label, "Left of the head,")]');
    const before = await second.getRect();
    await user.driver
      .actions()
      .move({ origin: second })
      .press()
      .move({ origin: Origin.POINTER, x: 40, y: 30 })
      .release()
      .perform();
    await user.press('Undo: position of Left of the head');
    const name = await user.field('Name of the spot');
    await name.sendKeys(Key.chord(Key.CONTROL, 'a'), 'Armrest', Key.ENTER);
    await user.find('//*[@role="button"][starts-with(@aria-label, "Armrest,")]');
    await user.type('Weight', '2.5');
    await user.find('//button[@aria-label="Undo: weight of Armrest"]');
    await user.tick('From the side');
    await user.sees(/Set the stand to \d(\.\d+)? m/);
    await user.tick('From above');
    await user.press('Remove Armrest');
    await user.sees('0 good, of 42');
    expect(before.width).toBeGreaterThan(5);
  });

  it('says how settled the average is, from the sweeps that there are', async () => {
    await user.press('Take this spot');
    await user.sees('7 good, of 42', 120_000);
    await user.click('//*[@role="button"][starts-with(@aria-label, "Right of the head,")]');
    await user.press('Take this spot');
    await user.sees('14 good, of 42', 120_000);
    await user.sees(/Leaving one spot out moves the average of [\w ]+ by \d\.\d dB/);
  });
});
