// Loudspeakers as files: a cone on a sphere as AES69, a horn as a table of polar data; and broken ones.
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { aes69File, sphereGrid } from '../../core/src/loudspeakers/aes69ForTest';

const folder = mkdtempSync(join(tmpdir(), 'pebble-hall-loudspeakers-'));
const written = (name: string, data: string | Uint8Array): string => {
  const path = join(folder, name);
  writeFileSync(path, data);
  return path;
};

const FREQUENCIES = [125, 250, 500, 1000, 2000, 4000, 8000];

/** Level falls as the square of the angle; at 1 kHz it is 6 dB down 40 degrees to either side. */
const beamDb = (off: number, f: number) => Math.max(-30, -6 * (off / 40) ** 2 * (f / 1000));

/** A beam that is alike about its axis, as AES69. @param convention another than the one that is read */
export async function aes69Beam(convention?: string): Promise<string> {
  const receivers = sphereGrid(10);
  const bytes = await aes69File({
    receivers,
    frequency: FREQUENCIES,
    name: 'Bittern 10',
    pressure: (r, n) => {
      const [az, el] = receivers[r]!;
      const cosine = Math.cos((az * Math.PI) / 180) * Math.cos((el * Math.PI) / 180);
      const off = (Math.acos(Math.max(-1, Math.min(1, cosine))) * 180) / Math.PI;
      return { re: 10 ** (beamDb(off, FREQUENCIES[n]!) / 20), im: 0 };
    },
    ...(convention ? { convention } : {}),
  });
  return written(convention ? 'heard by a head.sofa' : 'bittern.sofa', bytes);
}

/** A horn that is wide across and narrow upright. @param gap leaves so many angles out */
export function polarTable(gap = 0): string {
  const plane = (name: string, width: number) => [
    `plane: ${name}`,
    ['angle', ...FREQUENCIES].join('\t'),
    ...Array.from({ length: 37 }, (_, i) => 10 * (i - 18))
      .filter((a) => a > -180 && !(a > 20 && a <= 20 + 10 * gap))
      .map((a) =>
        [a, ...FREQUENCIES.map((f) => Math.max(-40, -6 * (a / width) ** 2 * (f / 1000)).toFixed(2))].join(
          '\t',
        ),
      ),
  ];
  return written(
    gap > 0 ? 'heron with a gap.txt' : 'heron.txt',
    [
      'name: Heron 12',
      'sensitivity: 99',
      'largest level: 132',
      ...plane('horizontal', 50),
      ...plane('vertical', 20),
      '',
    ].join('\n'),
  );
}
