import type { User } from './user';

/** A room of one's own, described and swept through this computer's devices until the first sweep is there; how many clicks that took. */
export async function firstSweepOfOnesOwn(user: User): Promise<number> {
  let clicks = 0;
  const click = async (run: Promise<void>) => {
    await run;
    clicks++;
  };
  await click(user.press('Project'));
  await click(user.press('New project'));
  // a control room begins with two in front
  await click(user.among('Kind of place', 'control room'));
  await click(user.among('Measure with', 'devices of this computer'));
  await click(user.press('Make it'));
  await click(user.press('Open devices'));
  await user.sees(/Connected: 2 in, 2 out at 48 kHz/);
  // the file in place of a microphone begins anew with each take then, as no microphone needs
  await user.tick('Let go of the input between takes');
  await click(user.click('//a[contains(., "Mic walk")]'));
  await user.sees('0 good, of 6');
  await click(user.press('Take this spot'));
  await takenUntil(user, /[1-6] good, of 6/);
  return clicks;
}

/** On a busy machine the fake microphone drops blocks; that is told, and what failed is taken again, as a user does. */
export function takenUntil(user: User, sweeps: RegExp): Promise<void> {
  // a press shows after a moment
  let pressedAt = Date.now();
  return user.until(
    `sweeps that read ${sweeps}`,
    async () => {
      if (sweeps.test(await user.textOf('Sweeps'))) return true;
      const idle = await user.driver.findElements({
        xpath: '//button[normalize-space()="Take this spot" and not(@disabled)]',
      });
      if (idle[0] && Date.now() - pressedAt > 3000) {
        pressedAt = Date.now();
        await idle[0].click();
      }
      return false;
    },
    200_000,
  );
}
