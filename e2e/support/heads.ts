// Heads as AES69 files: what two ears hear from all around.
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { writeAes69Responses } from '@pebble-hall/core/formats';

const folder = mkdtempSync(join(tmpdir(), 'pebble-hall-heads-'));
const RATE = 48_000;
const DIRECTIONS = 60;

/** A head as simple as can be: each ear softer and later the farther it is turned away. */
export async function ballHead(): Promise<string> {
  const responses = Array.from({ length: DIRECTIONS }, (_, i) => {
    const z = 1 - (2 * i + 1) / DIRECTIONS;
    const around = i * Math.PI * (3 - Math.sqrt(5));
    const out = Math.sqrt(1 - z * z);
    const source = { x: 1.2 * out * Math.cos(around), y: 1.2 * out * Math.sin(around), z: 1.2 * z };
    const channels = [1, -1].map((side) => {
      const samples = new Float64Array(1200);
      const towards = (side * source.y) / 1.2;
      samples[Math.round(40 - 14 * towards)] = 0.6 + 0.4 * towards;
      return samples;
    });
    return {
      name: `${i}`,
      channels,
      zero: 0,
      listener: { x: 0, y: 0, z: 0 },
      source,
      view: { x: 1, y: 0, z: 0 },
    };
  });
  const ears = [0.09, -0.09].map((y) => ({ x: 0, y, z: 0 }));
  const path = join(folder, 'ball.sofa');
  writeFileSync(path, new Uint8Array(await writeAes69Responses('A ball', [], RATE, responses, ears)));
  return path;
}

export function notAHead(): string {
  const path = join(folder, 'no head.sofa');
  writeFileSync(path, 'a head of salt');
  return path;
}
