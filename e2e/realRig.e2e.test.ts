import { gainOfDb } from '@pebble-hall/core/signal';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { fakeCapture, writeCaptureFile } from './support/captureFile.mjs';
import { onSound } from './support/onSound';
import { leftInTheLoft } from './support/roomCapture';
import { startServer } from './support/server.mjs';
import { User } from './support/user';

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

describe('on the devices of this computer', () => {
  it('a refused permission, a device that is not there and one that vanishes are told, with what to do', async () => {
    user = await User.at(server.url, {
      args: ['--use-fake-device-for-media-stream', '--deny-permission-prompts'],
    });
    await user.visit('/rig#connect');
    await user.tick('This computer');
    await user.press('Open devices');
    await user.sees('The browser was not allowed to use the microphone. Allow it beside the address bar');
    await user.view('Channels');
    await user.press('Check Left');
    await user.sees(/No audio devices are chosen yet\. Choose them in Rig, under Connect\./);
  });

  onSound(
    'processing that the browser does not switch off, a wrong rate and a lost device are told',
    async () => {
      user = await User.at(server.url, { args: fakeCapture(leftInTheLoft()) });
      await user.driver.sendDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', {
        source: `
        const settings = MediaStreamTrack.prototype.getSettings;
        MediaStreamTrack.prototype.getSettings = function () {
          return { ...settings.call(this), autoGainControl: true, sampleRate: 44100 };
        };
        const ask = MediaDevices.prototype.getUserMedia;
        MediaDevices.prototype.getUserMedia = async function (wanted) {
          const stream = await ask.call(this, wanted);
          window.__track = stream.getAudioTracks()[0];
          return stream;
        };`,
      });
      await user.visit('/rig#connect');
      await user.tick('This computer');
      await user.press('Open devices');
      await user.sees(/does not switch its gain control off: levels and responses will be wrong/);
      await user.sees(/The input runs at 44100 Hz and the browser converts it to 48000 Hz/);
      await user.view('Level');
      await user.press('Start the meter');
      await user.until('the meter shows something', async () =>
        /−\d+\.\d/.test(await user.textOf('Meter 1')),
      );
      await user.driver.executeScript(
        `window.__track.stop(); window.__track.dispatchEvent(new Event('ended'));`,
      );
      await user.sees(/was unplugged or taken away\. Plug it in again/);
      await user.sees('Start the meter');
    },
  );
});

onSound('a calibrator on a real input is found stable, whatever else the page does', async () => {
  const tone = Float32Array.from(
    { length: 96000 },
    (_, i) => Math.SQRT2 * gainOfDb(-26) * Math.sin((2 * Math.PI * i) / 48),
  );
  user = await User.at(server.url, { args: fakeCapture(writeCaptureFile([tone, tone])) });
  await user.visit('/rig#connect');
  await user.tick('This computer');
  await user.press('Open devices');
  await user.sees('Connected: 2 in');
  await user.view('Level');
  await user.press('Start the meter');
  await user.sees(/Stable at −26\.0\d dB re full scale, 1000\.0 Hz/, 90_000);
  // a tone that loses a sample just then is not steady for a moment, and nothing can be set by it
  await user.until('the level is set', async () => {
    await user.press('Set the level by 94 dB');
    return (await user.sees('Full scale is', 3000)) !== '';
  });
  await user.until('the meter reads 94 dB', async () => /94\.0|93\.9/.test(await user.textOf('Meter 1')));
});

onSound(
  'a listening chain plays on the output that was chosen for it, and says when that is not there',
  async () => {
    user = await User.at(server.url, {
      args: ['--use-fake-device-for-media-stream', '--use-fake-ui-for-media-stream'],
    });
    // which output is asked for, and a way to have it taken away
    await user.driver.sendDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', {
      source: `
      const choose = AudioContext.prototype.setSinkId;
      AudioContext.prototype.setSinkId = function (id) {
        window.__sinks = [...(window.__sinks ?? []), id];
        return window.__gone ? Promise.reject(new DOMException('gone', 'NotFoundError')) : choose.call(this, id);
      };`,
    });
    await user.visit('/mic-walk');
    await user.press('Take this spot');
    await user.sees('7 good, of 28');
    await user.visit('/listen');
    await user.sees('as one microphone at Home spot hears it');
    await user.type('Name of the chain', 'Desk');
    await user.sees('and Desk, for monitoring');
    if ((await user.text()).includes('Other outputs')) await user.press('Other outputs');
    await (await user.field('Output of the chain')).click();
    const offered = await user.driver.findElements({ xpath: '//*[@role="option"][contains(., "Fake")]' });
    expect(offered.length).toBeGreaterThan(0);
    const name = await offered.at(-1)!.getText();
    await offered.at(-1)!.click();
    await user.until(
      'the chain has its output',
      async () => (await (await user.field('Output of the chain')).getAttribute('value')) === name,
    );
    await user.press('Play');
    await user.sees('Matched in loudness: as found, no chain');
    const sinks = await user.driver.executeScript<string[]>('return window.__sinks');
    expect(sinks.at(-1)).toMatch(/^[0-9a-f]{20,}$/);
    // one key goes on to the next chain, here none, and what plays plays on
    await (await user.find('//body')).sendKeys('c');
    await user.sees(/Matched in loudness: as found [−+]?\d+\.\d dB, First variant/);
    await user.find('//button[normalize-space(.)="Stop"]');
    await (await user.find('//body')).sendKeys('c');
    await user.sees('Matched in loudness: as found, no chain');
    await user.press('Stop');
    await user.find('//button[normalize-space(.)="Play"]');
    await user.driver.executeScript('window.__gone = true');
    await user.press('Play');
    await user.sees(
      'Not played: the output that was chosen is not there; plug it in, or choose another one.',
    );
    await user.visit('/listen');
    await user.sees('and Desk, for monitoring');
    await user.until(
      'the output is kept',
      async () => (await (await user.field('Output of the chain')).getAttribute('value')) === name,
    );
  },
);
