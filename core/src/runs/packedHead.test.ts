import { beforeAll, describe, expect, it } from 'vitest';
import { sphereGain } from '../directivity/index.js';
import { readAes69Head, writeAes69Responses, type HeadSet } from '../formats/index.js';
import { dot, type Point } from '../geometry/index.js';
import { binFrequencies, emptySpectrum, inverseRealFft } from '../signal/index.js';
import { earsOf, earsOfHead, isPackedHead, packedHead } from './index.js';

const [RATE, LENGTH, BASE] = [48_000, 512, 96];
const [RADIUS, SPEED] = [0.0875, 343];
/** Where the ears of the sphere are. */
const EARS = [100, -100].map((deg) => ({
  x: Math.cos((deg * Math.PI) / 180),
  y: Math.sin((deg * Math.PI) / 180),
  z: 0,
}));

/** Directions evenly over the sphere, by the golden angle. */
const directions = (count: number): Point[] =>
  Array.from({ length: count }, (_, i) => {
    const z = 1 - (2 * i + 1) / count;
    const around = i * Math.PI * (3 - Math.sqrt(5));
    const out = Math.sqrt(1 - z * z);
    return { x: out * Math.cos(around), y: out * Math.sin(around), z };
  });

/** What both ears of a rigid sphere hear of an impulse from each direction (Rayleigh's series), `BASE` samples late. */
function sphereHeard(from: readonly Point[]): Float64Array[][] {
  const frequency = binFrequencies(LENGTH, RATE);
  const gains = [...frequency].map((f) => (f > 0 ? sphereGain((2 * Math.PI * f * RADIUS) / SPEED) : null));
  return from.map((d) =>
    EARS.map((ear) => {
      const spectrum = emptySpectrum(LENGTH, RATE);
      const angle = Math.acos(dot(d, ear));
      gains.forEach((gain, k) => {
        const { re, im } = gain ? gain(angle) : { re: 1, im: 0 };
        const turn = (-2 * Math.PI * frequency[k]! * BASE) / RATE;
        // towards the upper end less and less, so that nothing rings
        const kept =
          frequency[k]! < 20_000 ? 1 : 0.5 + 0.5 * Math.cos((Math.PI * (frequency[k]! - 20_000)) / 4000);
        spectrum.re[k] = kept * (re * Math.cos(turn) - im * Math.sin(turn));
        spectrum.im[k] = kept * (re * Math.sin(turn) + im * Math.cos(turn));
      });
      const samples = new Float64Array(LENGTH);
      inverseRealFft(spectrum, samples);
      return samples;
    }),
  );
}

const from = directions(900);
let set: HeadSet;
let packed: Float32Array;
beforeAll(async () => {
  const heard = sphereHeard(from);
  const bytes = await writeAes69Responses(
    'A ball',
    [],
    RATE,
    heard.map((channels, i) => ({
      name: `${i}`,
      channels: channels.map((c) => c.map((v) => 0.2 * v)),
      zero: 0,
      listener: { x: 0, y: 0, z: 0 },
      source: { x: 1.5 * from[i]!.x, y: 1.5 * from[i]!.y, z: 1.5 * from[i]!.z },
      view: { x: 1, y: 0, z: 0 },
    })),
    EARS.map((e) => ({ x: RADIUS * e.x, y: RADIUS * e.y, z: 0 })),
  );
  set = await readAes69Head(new Uint8Array(bytes));
  packed = packedHead(set);
});

const seen = (going: Point, ears: ReturnType<typeof earsOf>) => {
  const out = new Float64Array(8);
  return ears.map((ear) => {
    ear.gains(going, out);
    return { delayS: ear.delayS(going), gains: [...out] };
  });
};

describe('a measured head', () => {
  it('is read with its directions, left ear first', () => {
    expect(set.title).toBe('A ball');
    expect(set.rate).toBe(RATE);
    expect(set.directions).toHaveLength(900);
    set.directions.forEach((d, i) => expect(dot(d, from[i]!)).toBeCloseTo(1, 9));
    expect(isPackedHead(packed)).toBe(true);
    expect(isPackedHead(packed.subarray(1))).toBe(false);
  });

  it('that is a rigid sphere, five times softer and later, hears as the sphere does, wherever one looks', () => {
    for (const facing of [0, 1, -2.4]) {
      const [own, sphere] = [earsOfHead(packed, facing), earsOf(facing)];
      for (const going of directions(40)) {
        const [a, b] = [seen(going, own), seen(going, sphere)];
        // Woodworth's way around is that of the highest frequencies; a peak that is rounded on its way begins up to a ninth of the largest difference later
        const apart = (s: typeof a) => s[0]!.delayS - s[1]!.delayS;
        expect(Math.abs(apart(a) - apart(b))).toBeLessThan(8e-5);
        for (const ear of [0, 1])
          for (let o = 0; o < 8; o++) {
            const db = 20 * Math.log10(a[ear]!.gains[o]! / b[ear]!.gains[o]!);
            expect(Math.abs(db)).toBeLessThan(o < 6 ? 0.7 : 2);
          }
      }
    }
  });

  it('hears the left with the left ear first, and in front nothing between them', () => {
    const left = seen({ x: 0, y: -1, z: 0 }, earsOfHead(packed, 0));
    expect(left[0]!.delayS).toBeLessThan(left[1]!.delayS - 5e-4);
    expect(left[0]!.gains[6]!).toBeGreaterThan(2 * left[1]!.gains[6]!);
    const ahead = seen({ x: -1, y: 0, z: 0 }, earsOfHead(packed, 0));
    expect(Math.abs(ahead[0]!.delayS - ahead[1]!.delayS)).toBeLessThan(3e-5);
  });

  it('of short responses is the sphere where they say nothing', () => {
    const short = packedHead({
      ...set,
      ears: set.ears.map(
        (both) => both.map((e) => ({ ...e, samples: e.samples.slice(0, 240) })) as typeof both,
      ),
    });
    const going = { x: -0.6, y: -0.8, z: 0 };
    const [own, sphere] = [seen(going, earsOfHead(short, 0)), seen(going, earsOf(0))];
    // 5 ms hold no one and a half periods of 63, 125 and 250 Hz
    expect(Math.abs(20 * Math.log10(own[0]!.gains[1]! / sphere[0]!.gains[1]!))).toBeLessThan(0.1);
  });

  it('is refused where nothing is heard', () => {
    const silent = set.ears.map(
      (both) => both.map((e) => ({ ...e, samples: new Float64Array(LENGTH) })) as typeof both,
    );
    expect(() => packedHead({ ...set, ears: silent })).toThrow('Its responses are silent at 500 Hz');
  });
});
