import { expect, it } from 'vitest';
import { MeterSession } from './meterSession';
import { duration, figure, quantityOf, QUANTITIES } from './quantities';

const RATE = 48000;
const tone = (seconds: number, rms: number) =>
  Float32Array.from(
    { length: seconds * RATE },
    (_, i) => Math.SQRT2 * rms * Math.sin((2 * Math.PI * 1000 * i) / RATE),
  );
const fed = (session: MeterSession, signal: Float32Array) => {
  for (let i = 0; i < signal.length; i += 4800) session.process(signal.subarray(i, i + 4800));
};

it('keeps ten points of history a second, and tells those who look', () => {
  const session = new MeterSession();
  let told = 0;
  session.store.subscribe(() => told++);
  session.begin(RATE);
  fed(session, tone(2, 0.1));
  expect(session.history).toHaveLength(20);
  expect(session.history.at(-1)!.a).toBeCloseTo(-20, 1);
  expect(told).toBeGreaterThanOrEqual(20);
});

it('goes on after a stop, and begins anew at another rate', () => {
  const session = new MeterSession();
  session.begin(RATE);
  fed(session, tone(1, 0.1));
  session.end();
  expect(session.store.getState().listening).toBe(false);
  session.begin(RATE);
  fed(session, tone(1, 0.1));
  expect(session.history).toHaveLength(20);
  session.begin(96000);
  expect(session.history).toHaveLength(0);
});

it('finds the calibrator in what it hears, and forgets it when it stops', () => {
  const session = new MeterSession();
  session.begin(RATE);
  fed(session, tone(4, 0.05));
  expect(session.store.getState().tone).toMatchObject({ state: 'stable' });
  session.end();
  expect(session.store.getState().tone).toEqual({ state: 'waiting' });
});

it('shows every quantity that a meter has, each under its own symbol', () => {
  const session = new MeterSession();
  session.begin(RATE);
  fed(session, tone(5, 0.1));
  session.reset(); // the filters have settled: no ringing from the start in the peaks
  fed(session, tone(2, 0.1));
  expect(new Set(QUANTITIES.map((q) => q.symbol)).size).toBe(24);
  for (const q of QUANTITIES) {
    // 1 kHz of -20 dB: the same under every weighting; peak 3 dB higher
    const expected = q.id.endsWith('peak') ? -17 : -20;
    expect(Math.abs(q.read(session.meter!, 2) - expected), q.symbol).toBeLessThan(
      q.id.includes('S') ? 0.3 : 0.1,
    );
  }
  expect(quantityOf('nonsense').id).toBe('AF');
});

it('writes figures and times as people read them', () => {
  expect([figure(93.96), figure(-0.04), figure(-12.34), figure(-Infinity), figure(NaN)]).toEqual([
    '94.0',
    '\u22120.0',
    '\u221212.3',
    '\u2013',
    '\u2013',
  ]);
  expect([duration(10), duration(60), duration(90), duration(3600)]).toEqual([
    '10 s',
    '1 min',
    '90 s',
    '1 h',
  ]);
});
