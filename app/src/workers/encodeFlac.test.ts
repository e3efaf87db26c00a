import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { flacHead, readImpulseHead } from '@pebble-hall/core/formats';
import { expect, it } from 'vitest';
import { encodeFlac } from './encodeFlac';

it('another program reads the samples and the comment out of it; its gain is told', async () => {
  const samples = Float64Array.from({ length: 5000 }, (_, i) => 3 * Math.exp(-i / 400) * Math.cos(i / 7));
  const other = samples.map((v) => -0.01 * v);
  const bytes = await encodeFlac(
    [samples, other],
    96_000,
    (gainDb) => `a hall\ngain in the file: ${gainDb} dB`,
  );
  const { rate, channels, comment } = flacHead(bytes);
  expect([rate, channels]).toEqual([96_000, 2]);
  const { gainDb } = readImpulseHead(comment.split('\n'));
  expect(gainDb).toBeCloseTo(20 * Math.log10(0.5 / 3), 3);
  const folder = mkdtempSync(join(tmpdir(), 'flac-'));
  const path = join(folder, 'a.flac');
  writeFileSync(path, bytes);
  const about = spawnSync('sox', ['--info', '-a', path]).stdout.toString();
  const raw = spawnSync('sox', [path, '-t', 'f32', '-'], { maxBuffer: 1 << 24 }).stdout;
  rmSync(folder, { recursive: true });
  expect(about).toContain('a hall');
  const read = new Float32Array(raw.buffer.slice(raw.byteOffset, raw.byteOffset + raw.length));
  expect(read.length).toBe(10_000);
  const gain = 10 ** (gainDb / 20);
  for (let i = 0; i < 5000; i += 97) {
    expect(read[2 * i]! / gain).toBeCloseTo(samples[i]!, 5);
    expect(read[2 * i + 1]! / gain).toBeCloseTo(other[i]!, 5);
  }
});
