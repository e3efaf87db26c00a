import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import {
  readImpulseHead,
  readImpulseText,
  readWav,
  writeImpulseText,
  writeWav,
  impulseHead,
} from '../formats/index.js';
import { shapeTrace, type Shape } from '../shapes/index.js';
import { logGrid, seededRandom } from '../signal/index.js';
import {
  curveOfImpulse,
  curveOfShapes,
  impulseOfCurve,
  LIBRARY_GRID,
  timeZeroOf,
  viewedCurve,
  writeCurveText,
} from './index.js';

const shapes: Shape[] = [
  { kind: 'high-pass', hz: 45, family: 'Butterworth', order: 2 },
  { kind: 'peaking', hz: 300, gainDb: -7, q: 3 },
  { kind: 'high shelf', hz: 4000, gainDb: 5, order: 1, q: null },
];
const plain = { gainDb: 0, delayS: 0, inverted: false, shapes: [] };
/** later by 3.2 ms, so that its phase turns by more than a turn from point to point in the highs */
const curve = viewedCurve(curveOfShapes(shapes), { ...plain, delayS: 0.0032 });

/** Level and phase of samples at a frequency by the sum itself: as independent as can be. */
function responseAt(samples: ArrayLike<number>, rate: number, zero: number, hz: number) {
  let [re, im] = [0, 0];
  for (let i = 0; i < samples.length; i++) {
    const turn = (-2 * Math.PI * hz * (i - zero)) / rate;
    re += samples[i]! * Math.cos(turn);
    im += samples[i]! * Math.sin(turn);
  }
  return { db: 20 * Math.log10(Math.hypot(re, im)), deg: (Math.atan2(im, re) * 180) / Math.PI };
}
const expected = (hz: number) => {
  const { re, im } = shapeTrace(shapes, Float64Array.of(hz));
  const turn = -2 * Math.PI * hz * 0.0032;
  const [r, i] = [
    re[0]! * Math.cos(turn) - im[0]! * Math.sin(turn),
    re[0]! * Math.sin(turn) + im[0]! * Math.cos(turn),
  ];
  return { db: 20 * Math.log10(Math.hypot(r, i)), deg: (Math.atan2(i, r) * 180) / Math.PI };
};
const HZ = [25, 60, 150, 290, 300, 330, 1000, 4000, 9000, 16_000];

describe.each([44_100, 48_000, 96_000])('a curve as an impulse response at %i Hz', (rate) => {
  const impulse = impulseOfCurve(curve, rate, 65_536);
  it.each(HZ)('has its level and phase at %i Hz', (hz) => {
    const read = responseAt(impulse.samples, rate, impulse.zero, hz);
    const wanted = expected(hz);
    expect(Math.abs(read.db - wanted.db)).toBeLessThan(0.05);
    expect(Math.abs(((read.deg - wanted.deg + 540) % 360) - 180)).toBeLessThan(1);
  });
  it('and is the same curve when it is read again', () => {
    const again = curveOfImpulse(impulse);
    again.frequency.forEach((f, n) => {
      if (f < 25 || f > 17_000) return;
      const k = LIBRARY_GRID.findIndex((g) => Math.abs(g / f - 1) < 1e-6);
      const ratio = Math.hypot(again.re[n]!, again.im[n]!) / Math.hypot(curve.re[k]!, curve.im[k]!);
      // in the lows a point of the library holds one bin or none
      expect(Math.abs(20 * Math.log10(ratio))).toBeLessThan(f < 100 ? 0.15 : 0.05);
    });
  });
});

it('has the levels of a rough curve, as of a room, within 0.05 dB at points that count', () => {
  const random = seededRandom(5);
  // a decay of 0.4 s under its pulse: peaks and dips a few hertz apart
  const samples = Float64Array.from(
    { length: 16_384 },
    (_, i) => random.normal() * 10 ** ((-3 * i) / 48_000 / 0.4) * (i === 0 ? 8 : 1),
  );
  const frequency = logGrid(20, 20_000, 48);
  const at = [...frequency].map((hz) => {
    const { db, deg } = responseAt(samples, 48_000, 0, hz);
    const size = 10 ** (db / 20);
    return { db, re: size * Math.cos((deg * Math.PI) / 180), im: size * Math.sin((deg * Math.PI) / 180) };
  });
  const rough = {
    ...curve,
    frequency,
    re: Float64Array.from(at, (a) => a.re),
    im: Float64Array.from(at, (a) => a.im),
  };
  const impulse = impulseOfCurve(rough, 48_000, 262_144);
  const loudest = Math.max(...at.map((a) => a.db));
  const apart = at.flatMap(({ db }, i) => {
    const hz = frequency[i]!;
    if (i % 8 > 0 || hz < 100 || hz > 10_000 || db < loudest - 20) return [];
    return [responseAt(impulse.samples, 48_000, impulse.zero, hz).db - db];
  });
  expect(apart.length).toBeGreaterThan(25);
  expect(Math.hypot(...apart) / Math.sqrt(apart.length)).toBeLessThan(0.05);
});

it('wherever time zero lies, a curve has the level of its impulse response, and turns by the delay', () => {
  const impulse = impulseOfCurve(curveOfShapes(shapes), 48_000, 65_536);
  const far = curveOfImpulse({ ...impulse, zero: impulse.zero - 960 });
  const near = curveOfImpulse(impulse);
  far.frequency.forEach((f, n) => {
    const size = Math.hypot(far.re[n]!, far.im[n]!);
    expect(size / Math.hypot(near.re[n]!, near.im[n]!)).toBeCloseTo(1, 9);
    const turned =
      Math.atan2(far.im[n]!, far.re[n]!) - Math.atan2(near.im[n]!, near.re[n]!) + 2 * Math.PI * f * 0.02;
    expect(Math.cos(turned)).toBeCloseTo(1, 6);
  });
});

it('refuses a curve without a phase, and one that is known nowhere', () => {
  expect(() => impulseOfCurve({ ...curve, hasPhase: false }, 48_000, 4096)).toThrow(/without a phase/);
  expect(() => impulseOfCurve({ ...curve, re: curve.re.map(() => NaN) }, 48_000, 4096)).toThrow(
    /known nowhere/,
  );
  expect(() => impulseOfCurve(curve, NaN, 4096)).toThrow(/NaN/);
});

it('time zero is the beginning, the onset, the peak, or where a hand puts it', () => {
  const samples = new Float64Array(1000);
  samples[300] = 0.004;
  samples[320] = -0.2;
  samples[330] = 1;
  expect(timeZeroOf(samples, 48_000, { by: 'beginning' })).toBe(0);
  expect(timeZeroOf(samples, 48_000, { by: 'onset' })).toBe(320);
  expect(timeZeroOf(samples, 48_000, { by: 'peak' })).toBe(330);
  expect(timeZeroOf(samples, 48_000, { by: 'hand', seconds: 0.005 })).toBe(240);
  expect(timeZeroOf(samples, 48_000, { by: 'hand', seconds: 99 })).toBe(999);
  expect(() => timeZeroOf(Float64Array.of(NaN), 48_000, { by: 'peak' })).toThrow(/NaN/);
});

describe('in files', () => {
  const impulse = impulseOfCurve(curve, 48_000, 16_384);
  it('rate and time zero come back from text and from the comment of a sound file', () => {
    const text = readImpulseText(writeImpulseText(impulse, ['Left, row 4', 'a line\nwith a break']));
    expect(text).toMatchObject({ rate: 48_000, zero: impulse.zero });
    expect(text.comments[0]).toBe('Left, row 4');
    text.samples.forEach((v, i) => expect(v).toBeCloseTo(impulse.samples[i]!, 8));
    const bytes = writeWav(
      [impulse.samples],
      48_000,
      'float32',
      ['Left', ...impulseHead(impulse)].join('\n'),
    );
    const sound = readWav(bytes);
    expect(sound.channels[0]!.length).toBe(16_384);
    expect(readImpulseHead(sound.comment.split('\n'))).toEqual({
      rate: 48_000,
      zero: impulse.zero,
      gainDb: 0,
    });
    // what it was made from has said it of itself; its gain in a file of whole numbers is told too
    const lines = ['sample rate: 44100 Hz', 'time zero at sample 7', ...impulseHead(impulse, -12.5)];
    expect(readImpulseHead(lines)).toEqual({ rate: 48_000, zero: impulse.zero, gainDb: -12.5 });
  });
  it('text of time and sample tells its rate; what is none is refused', () => {
    const rows = Array.from({ length: 64 }, (_, i) => `${(i / 44.1).toFixed(6)}; ${i === 3 ? '0,5' : '0,0'}`);
    const read = readImpulseText(['time in ms; value', ...rows].join('\n'));
    expect(read).toMatchObject({ rate: 44_100, zero: null });
    expect(read.samples[3]).toBe(0.5);
    // a table of frequencies in equal steps is no response over time
    const bins = Array.from({ length: 64 }, (_, i) => `${5 * i} -3`).join('\n');
    expect(() => readImpulseText(bins)).toThrow(/too long/);
    expect(() => readImpulseText('hello\n1\n2')).toThrow(/No impulse response/);
    expect(() => readImpulseText(Array.from({ length: 40 }, (_, i) => `${i * i} 1`).join('\n'))).toThrow(
      /equal steps/,
    );
  });
  it('another program reads the same response out of the sound file, within 0.05 dB', () => {
    const folder = mkdtempSync(join(tmpdir(), 'pebble-hall-'));
    const path = join(folder, 'left.wav');
    writeFileSync(
      path,
      writeWav([impulse.samples, impulse.samples.map((v) => 0.5 * v)], 48_000, 'float32', 'a comment'),
    );
    // as raw numbers, resampled by nobody
    const raw = spawnSync('sox', [path, '-t', 'f32', '-', 'remix', '2'], { maxBuffer: 1 << 26 }).stdout;
    rmSync(folder, { recursive: true });
    const samples = new Float32Array(raw.buffer.slice(raw.byteOffset, raw.byteOffset + raw.length));
    expect(samples.length).toBe(16_384);
    for (const hz of HZ.slice(1)) {
      const read = responseAt(samples, 48_000, impulse.zero, hz);
      expect(Math.abs(read.db + 20 * Math.log10(2) - expected(hz).db)).toBeLessThan(0.05);
    }
  });
  it('and out of the text, which any program splits into columns', () => {
    const lines = writeCurveText(curve, ['Left'])
      .split('\n')
      .filter((l) => /^\d/.test(l));
    for (const line of lines.filter((_, i) => i % 40 === 5)) {
      const [f, db, deg] = line.split('\t').map(Number) as [number, number, number];
      expect(Math.abs(db - expected(f).db)).toBeLessThan(0.05);
      expect(Math.abs(((deg - expected(f).deg + 540) % 360) - 180)).toBeLessThan(0.5);
    }
  });
});
