import { describe, expect, it } from 'vitest';
import { layerGain, layerOfData, radiatorGain, type Radiator } from '../directivity/index.js';
import { aes69File, sphereGrid, type Aes69Parts } from './aes69ForTest.js';
import { readAes69 } from './readAes69.js';

const C = 343;
const CONE: Radiator = { kind: 'cap', radiusM: 0.08, sphereM: 0.16 };
const F = [250, 1000, 2500];
/** What stands 6 cm ahead of and 10 cm above the point that it is placed by. */
const AWAY = { x: 0.06, y: 0, z: 0.1 };
const unit = ([az, el]: readonly number[]) => {
  const [a, e] = [(az! * Math.PI) / 180, (el! * Math.PI) / 180];
  return { x: Math.cos(e) * Math.cos(a), y: Math.cos(e) * Math.sin(a), z: Math.sin(e) };
};
/** A cap on a sphere far away, from physics: what is asked of the file. */
function cone(d: { x: number; y: number; z: number }, f: number) {
  const k = (2 * Math.PI * f) / C;
  const g = radiatorGain(CONE, k)(Math.acos(Math.max(-1, Math.min(1, d.x))), Math.atan2(d.z, d.y));
  const turn = k * (AWAY.x * d.x + AWAY.y * d.y + AWAY.z * d.z);
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return { re: g.re * c - g.im * s, im: g.re * s + g.im * c };
}
const parts = (receivers: [number, number, number][], more: Partial<Aes69Parts> = {}): Aes69Parts => ({
  receivers,
  frequency: F,
  pressure: (r, n) => {
    const { re, im } = cone(unit(receivers[r]!), F[n]!);
    // 1 / r and the way there, and twice as loud at 1 kHz
    const size = (F[n] === 1000 ? 2 : 1) / receivers[r]![2];
    return { re: size * re, im: size * im };
  },
  ...more,
});
const db = ({ re, im }: { re: number; im: number }) => 10 * Math.log10(re * re + im * im);
const OFF = [
  [17, 3],
  [33, 41],
  [-52, -28],
  [88, 12],
  [-3, -61],
  [121, 33],
] as const;

/** The largest error against the cone itself, dB, over directions between those of the file; and of the phase, radians. */
async function errorsOf(file: Aes69Parts) {
  const { data } = await readAes69(await aes69File(file));
  let [worst, worstPhase] = [0, 0];
  for (const f of F) {
    const layer = layerOfData(data, f);
    const axis = cone({ x: 1, y: 0, z: 0 }, f);
    for (const off of OFF) {
      const d = unit(off);
      const [got, want] = [layerGain(layer, d.x, d.y, d.z), cone(d, f)];
      worst = Math.max(worst, Math.abs(db(got) - (db(want) - db(axis))));
      const rel = { re: want.re * axis.re + want.im * axis.im, im: want.im * axis.re - want.re * axis.im };
      const turn = Math.atan2(got.im * rel.re - got.re * rel.im, got.re * rel.re + got.im * rel.im);
      worstPhase = Math.max(worstPhase, Math.abs(turn));
    }
  }
  return { worst, worstPhase };
}

describe('the directivity of a loudspeaker in an AES69 file', () => {
  it('is held within 0.3 dB between its directions, its phase with it, on a grid about the vertical', async () => {
    const { worst, worstPhase } = await errorsOf(parts(sphereGrid(10)));
    expect(worst).toBeLessThan(0.3);
    expect(worstPhase).toBeLessThan(0.06);
  });

  it('and where they lie on no grid', async () => {
    // a spiral over the sphere (Rakhmanov, Saff and Zhou 1994), 800 directions
    const spiral = Array.from({ length: 800 }, (_, i): [number, number, number] => {
      const h = -1 + (2 * i) / 799;
      return [(i * 180 * (3 - Math.sqrt(5))) % 360, (Math.asin(h) * 180) / Math.PI, 2];
    });
    const { worst, worstPhase } = await errorsOf(parts(spiral));
    expect(worst).toBeLessThan(0.3);
    expect(worstPhase).toBeLessThan(0.06);
  });

  it('is turned so that its view is ahead, and distances are made alike', async () => {
    const turned = sphereGrid(10).map(([az, el], i): [number, number, number] => [
      (az + 90) % 360,
      el,
      i % 2 ? 2 : 3,
    ]);
    const file = parts(turned, { view: [0, 1, 0] });
    const { data } = await readAes69(
      await aes69File({
        ...file,
        pressure: (r, n) => {
          const [az, el, distance] = turned[r]!;
          const { re, im } = cone(unit([az - 90, el]), F[n]!);
          return { re: re / distance, im: im / distance };
        },
      }),
    );
    const d = unit(OFF[0]);
    const layer = layerOfData(data, 1000);
    expect(db(layerGain(layer, d.x, d.y, d.z))).toBeCloseTo(
      db(cone(d, 1000)) - db(cone({ x: 1, y: 0, z: 0 }, 1000)),
      1,
    );
  });

  it('tells name, response on axis and what was assumed', async () => {
    const read = await readAes69(await aes69File(parts(sphereGrid(15))));
    expect(read.name).toBe('Heron 12');
    const axis = F.map((f) => db(cone({ x: 1, y: 0, z: 0 }, f)) + (f === 1000 ? 20 * Math.log10(2) : 0));
    expect(read.axis.levelDb[1]! - read.axis.levelDb[0]!).toBeCloseTo(axis[1]! - axis[0]!, 6);
    expect(read.notes).toEqual([]);
    const levels = await readAes69(
      await aes69File({ ...parts(sphereGrid(15)), pressure: (r) => ({ re: r % 2 ? -1 : 1, im: 0 }) }),
    );
    expect(levels.data.hasPhase).toBe(false);
    expect(levels.data.re[0]!.every((v) => Math.abs(v - 1) < 1e-6)).toBe(true);
  });

  it('takes the ring of one plane as a polar', async () => {
    const ring = Array.from({ length: 36 }, (_, i): [number, number, number] => [10 * i, 0, 1]);
    const { data } = await readAes69(await aes69File(parts(ring)));
    expect(data.pole).toBe('front');
    expect([...data.aboutDeg]).toEqual([0, 180]);
  });

  it.each<[string, RegExp, () => Promise<Uint8Array>]>([
    [
      'another kind of file',
      /no AES69 file/,
      () => Promise.resolve(new TextEncoder().encode('plane: horizontal')),
    ],
    [
      'a file that was cut off',
      /damaged or was cut off/,
      async () => (await aes69File(parts(sphereGrid(15)))).slice(0, 3000),
    ],
    [
      'another convention',
      /convention SimpleFreeFieldHRIR;/,
      () => aes69File(parts(sphereGrid(30), { convention: 'SimpleFreeFieldHRIR' })),
    ],
    ['three points', /3 directions; at least 12/, () => aes69File(parts(sphereGrid(30).slice(5, 8)))],
    [
      'a gap',
      /leave a gap/,
      () => aes69File(parts(sphereGrid(20).filter(([az, el]) => az < 150 && el > -70))),
    ],
    ['missing data', /lacks Data.Real/, () => aes69File(parts(sphereGrid(30), { without: 'Data.Imag' }))],
    [
      'missing positions',
      /lacks the positions/,
      () => aes69File(parts(sphereGrid(30), { without: 'ReceiverPosition' })),
    ],
    [
      'no numbers',
      /no numbers/,
      () => aes69File({ ...parts(sphereGrid(30)), pressure: () => ({ re: NaN, im: 0 }) }),
    ],
    [
      'silence',
      /nothing on the axis/,
      () => aes69File({ ...parts(sphereGrid(30)), pressure: () => ({ re: 0, im: 0 }) }),
    ],
    ['0 Hz alone', /No frequency/, () => aes69File({ ...parts(sphereGrid(30)), frequency: [0] })],
    [
      'frequencies that descend',
      /do not ascend/,
      () => aes69File({ ...parts(sphereGrid(30)), frequency: [500, 100] }),
    ],
    [
      'a receiver where it stands',
      /stands where the loudspeaker is/,
      () => aes69File({ ...parts(sphereGrid(30, 0)), pressure: () => ({ re: 1, im: 0 }) }),
    ],
  ])('refuses %s', async (_, reason, file) => {
    await expect(readAes69(await file())).rejects.toThrow(reason);
  });
});
