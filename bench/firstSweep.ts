// From "new project" to the first sweep through real equipment, as a quick hand does it: seconds, and how many clicks.
import { fakeCapture } from '../e2e/support/captureFile.mjs';
import { firstSweepOfOnesOwn } from '../e2e/support/firstSweep';
import { leftInARoom } from '../e2e/support/roomCapture';
import { User } from '../e2e/support/user';

/** @param url where the application answers */
export async function benchFirstSweep(url: string) {
  const user = await User.at(url, { args: fakeCapture(leftInARoom()) });
  try {
    await user.visit('/');
    await user.sees('Net Loft');
    const began = Date.now();
    const clicks = await firstSweepOfOnesOwn(user);
    const seconds = (Date.now() - began) / 1000;
    console.log(
      `From "new project" to the first sweep through real equipment: ${seconds.toFixed(1)} s (bar 60), ${clicks} clicks (bar 8)`,
    );
  } finally {
    await user.close();
  }
}
