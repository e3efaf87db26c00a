import { readZipNames } from './support/zipNames';
import { afterAll, beforeAll, expect } from 'vitest';
import { fakeCapture } from './support/captureFile.mjs';
import { firstSweepOfOnesOwn, takenUntil } from './support/firstSweep';
import { leftInARoom } from './support/roomCapture';
import { onSound } from './support/onSound';
import { startServer } from './support/server.mjs';
import { User } from './support/user';

let server: Awaited<ReturnType<typeof startServer>>;
let user: User;
beforeAll(async () => {
  server = await startServer();
  user = await User.at(server.url, { args: fakeCapture(leftInARoom()) });
});
afterAll(async () => {
  await user?.close();
  await server?.stop();
});

onSound(
  'a room of one’s own through real devices: at most eight clicks to its first sweep',
  async () => {
    await user.visit('/');
    await user.sees('Net Loft');
    expect(await firstSweepOfOnesOwn(user)).toBeLessThanOrEqual(8);
    await takenUntil(user, /[2-6] good, of 6/);
  },
  480_000,
);

onSound(
  'no simulated processor stands in its way: what is designed goes by files, with a report, and counts as in place once one says so',
  async () => {
    await user.reads('In the chain', /by files, no filters/);
    await user.click('//a[contains(., "Correct")]');
    await user.find('//*[@aria-label="Which filter"] | //*[@aria-label="Target"]');
    await user.click('//a[contains(., "Hand over")]');
    await user.reads('Handed over', /No processor, files only/);
    await user.reads('In place', /say so here/);
    await user.press('Filters and settings');
    await user.press('Save zip');
    const zip = await user.download(/first-variant\.zip$/);
    expect(readZipNames(zip.bytes)).toEqual(
      expect.arrayContaining([
        // the file plays one loudspeaker for all of them: one whose sweeps lost sound is left out
        expect.stringMatching(/output-[12]-(left|right)\.wav$/),
        expect.stringMatching(/README/i),
      ]),
    );
    await user.press('Report');
    const report = (await user.download(/report\.html$/)).bytes.toString();
    expect(report).toContain('New control room');
    expect(report).not.toMatch(/Skerry|memory [A-F]\b/);
    const [first] = await user.driver.getAllWindowHandles();
    await user.driver.switchTo().window(first!);
    await user.press('First variant is in place');
    await user.reads('In the chain', /by files, First variant/, 60_000);
    await user.press('Taken out again');
    await user.reads('In the chain', /by files, no filters/);
  },
);
