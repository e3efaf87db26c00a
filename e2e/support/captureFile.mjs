// A file in place of a microphone, for Chromium's fake capture device.
import { whiteNoise } from '@pebble-hall/core/signal';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/**
 * What Chromium needs to take sound from a file, without asking anyone.
 * @param {string} path
 */
export const fakeCapture = (path) => [
  '--use-fake-ui-for-media-stream',
  '--use-fake-device-for-media-stream',
  `--use-file-for-fake-audio-capture=${path}`,
  '--autoplay-policy=no-user-gesture-required',
];

/**
 * Writes channels at 48 kHz as 16-bit PCM, which the fake device reads; a little noise keeps silence from being exactly zero.
 * @param {Float32Array[]} channels
 * @returns {string} path of the file
 */
export function writeCaptureFile(channels) {
  const noisy = channels.map((c, k) => {
    const noise = whiteNoise(c.length, 90 + k);
    return c.map((v, i) => v + 4e-5 * (noise[i] ?? 0));
  });
  const path = join(mkdtempSync(join(tmpdir(), 'pebble-hall-capture-')), 'capture.wav');
  writeFileSync(path, pcm16(noisy));
  return path;
}

/**
 * The core writes float and 24 bit; the fake device wants 16.
 * @param {Float32Array[]} channels
 */
function pcm16(channels) {
  const frames = channels[0]?.length ?? 0;
  const block = 2 * channels.length;
  const bytes = Buffer.alloc(44 + block * frames);
  bytes.write('RIFF', 0);
  bytes.writeUInt32LE(36 + block * frames, 4);
  bytes.write('WAVEfmt ', 8);
  bytes.writeUInt32LE(16, 16);
  bytes.writeUInt16LE(1, 20);
  bytes.writeUInt16LE(channels.length, 22);
  bytes.writeUInt32LE(48000, 24);
  bytes.writeUInt32LE(48000 * block, 28);
  bytes.writeUInt16LE(block, 32);
  bytes.writeUInt16LE(16, 34);
  bytes.write('data', 36);
  bytes.writeUInt32LE(block * frames, 40);
  for (let i = 0; i < frames; i++) {
    channels.forEach((c, k) => {
      const value = Math.round(32767 * Math.max(-1, Math.min(1, c[i] ?? 0)));
      bytes.writeInt16LE(value, 44 + i * block + 2 * k);
    });
  }
  return bytes;
}
