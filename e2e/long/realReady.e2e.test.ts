import { afterAll, afterEach, beforeAll } from 'vitest';
import { fakeCapture } from '../support/captureFile.mjs';
import { onSound } from '../support/onSound';
import { leftInTheLoft } from '../support/roomCapture';
import { startServer } from '../support/server.mjs';
import { User } from '../support/user';

let server: Awaited<ReturnType<typeof startServer>>;
let user: User;

beforeAll(async () => {
  server = await startServer();
});
afterAll(async () => {
  await server?.stop();
});
afterEach(async () => {
  await user?.close();
});

onSound(
  'from nothing to ready to measure: connect, check, level',
  async () => {
    user = await User.at(server.url, { args: fakeCapture(leftInTheLoft()) });
    await user.visit('/rig#connect');
    await user.tick('This computer');
    await user.sees('The browser will ask whether it may use the microphone');
    await user.press('Open devices');
    await user.sees(
      /Connected: 2 in, 2 out at 48 kHz; echo cancellation, noise suppression and gain control are off\./,
    );
    await user.tick('Let go of the input between takes');
    await user.view('Channels');
    for (const name of ['Centre', 'Surround left', 'Surround right', 'Sub 1', 'Sub 2']) {
      await user.click(`//*[@role="group"][@aria-label="${name}"]//label[normalize-space(.)="fitted"]`);
    }
    await user.type('Test level', '-30');
    await user.press('Listen to the room');
    await user.sees(/Noise of the room\s+−?\d+ dB\(A\) re full scale/);
    await user.press('Check every channel');
    await user.until(
      'both channels are judged',
      async () => {
        const text = await user.text();
        // a busy machine may lose sound on the way: the page then says to close other programs and to repeat it
        if (!text.includes('Cancel'))
          for (const name of ['Left', 'Right'])
            if ((await user.textOf(name)).includes('sound was lost')) {
              await user.press(`Check ${name}`);
              break;
            }
        return (text.match(/loud enough, \d\d dB above the noise/g) ?? []).length === 2;
      },
      180_000,
    );
    await user.sees(/ready, \d+ dB/);
    // the loopback in the file tells the time: Left is 3.1 m away, plus the processor's 1.25 ms
    await user.view('Microphones');
    await user.tick('With and without');
    await user.sees('Left, with the file');
  },
  400_000,
);
