import { zipSync } from 'fflate';
import { expect, it } from 'vitest';
import { FormatError, packFiles, unpackFiles } from './index.js';

const limits = { files: 10, bytes: 1e6 };
const text = (s: string) => new TextEncoder().encode(s);

it('comes back with every part', () => {
  const files = { 'project.json': text('{}'), 'traces/a.wav': new Uint8Array(1000).fill(7) };
  expect(unpackFiles(packFiles(files), limits)).toEqual(files);
});

it('refuses what is no zip, is cut off, holds too much, or reaches outside', () => {
  expect(() => unpackFiles(text('hello, this is not one at all'), limits)).toThrow(/not a zip/);
  const whole = packFiles({ 'a.json': text('x'.repeat(5000)) });
  expect(() => unpackFiles(whole.subarray(0, whole.length - 30), limits)).toThrow(FormatError);
  const bomb = zipSync({ 'a.txt': new Uint8Array(20e6) });
  expect(bomb.length).toBeLessThan(1e5);
  expect(() => unpackFiles(bomb, limits)).toThrow(/would take more than 1 MB/);
  const many = Object.fromEntries(Array.from({ length: 12 }, (_, i) => [`${i}`, text('x')]));
  expect(() => unpackFiles(packFiles(many), limits)).toThrow(/more than 10 parts/);
  expect(() => unpackFiles(packFiles({ '../../x': text('x') }), limits)).toThrow(/outside itself/);
});

it('unpacks no more than a part claims to hold', () => {
  const bomb = zipSync({ 'a.txt': new Uint8Array(20e6) });
  const view = new DataView(bomb.buffer, bomb.byteOffset, bomb.byteLength);
  // the unpacked size stands in the local header (22) and the central directory (24)
  view.setUint32(22, 10, true);
  for (let i = 0; i < bomb.length - 4; i++)
    if (view.getUint32(i, true) === 0x02014b50) view.setUint32(i + 24, 10, true);
  expect(unpackFiles(bomb, limits)['a.txt']!.length).toBeLessThanOrEqual(10);
});
