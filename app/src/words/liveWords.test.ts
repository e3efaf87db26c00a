import { liveGrid, type LiveFrame, type MeasuredNow, type TransferCurve } from '@pebble-hall/core/live';
import { newLive, type PlannedMeasurement } from '@pebble-hall/core/project';
import { expect, it } from 'vitest';
import { liveSentences } from './liveWords';

const grid = liveGrid(48_000);
const curve = (db: number, coherence: (f: number) => number = () => 1): TransferCurve => ({
  frequency: grid,
  re: grid.map(() => 10 ** (db / 20)),
  im: grid.map(() => 0),
  coherence: grid.map(coherence),
});
const planned = (id: string, name: string): PlannedMeasurement => ({
  ...newLive([], 2).measurements[0]!,
  id,
  name,
});
const now = (id: string, change: Partial<MeasuredNow> = {}): MeasuredNow => ({
  id,
  state: 'good',
  delayS: 0.00241,
  seen: { delayS: 0.00241, holds: true },
  curve: curve(0),
  blocks: 20,
  ...change,
});
const frame = (measured: MeasuredNow[], lostSamples = 0): LiveFrame => ({
  heardS: 10,
  lostSamples,
  inputs: [],
  sound: null,
  measured,
  spectra: [],
  octaves: null,
  pairs: [],
  average: null,
});
const say = (measured: MeasuredNow[], names: string[], lost = 0) =>
  liveSentences(
    frame(measured, lost),
    { measurements: measured.map((m, i) => planned(m.id, names[i]!)) },
    { loopbackInput: 2 },
    48_000,
  ).map((s) => s.text);

it('tells when an input is heard, and that it holds still', () => {
  expect(say([now('a')], ['Row 4'])).toEqual(['Row 4 is 2.41 ms after the loopback and holds still.']);
  const moved = now('a', { seen: { delayS: 0.00301, holds: false } });
  expect(say([moved], ['Row 4'])).toEqual([
    'Row 4 is 3.01 ms after the loopback; 2.41 ms are taken off. Find its delay.',
  ]);
  expect(say([now('a', { seen: null })], ['Row 4'])).toEqual([]);
});

it('tells the delays of several that hold still at once', () => {
  const later = now('b', { delayS: 0.004, seen: { delayS: 0.004, holds: true } });
  expect(say([now('a'), later], ['Row 4', 'Row 8'])[0]).toBe(
    'After the loopback: Row 4 2.41 ms and Row 8 4.00 ms; all hold still.',
  );
});

it('tells where there is noise and no response', () => {
  const noisy = now('a', { curve: curve(0, (f) => (f > 80 && f < 130 ? 0.2 : 1)), seen: null });
  expect(say([noisy], ['Row 4'])[0]).toMatch(
    /^Row 4: Between 8\d(\.\d)? Hz and 12\d Hz coherence is below 0.5. That is noise, not response.$/,
  );
  const low = now('a', { curve: curve(0, (f) => (f < 60 ? 0.2 : 1)), seen: null });
  expect(say([low], ['Row 4'])[0]).toMatch(/^Row 4: Below (5\d|6\d)(\.\d)? Hz/);
});

it('tells what is lost, silent or clipped first', () => {
  const said = say(
    [now('a'), now('b', { state: 'clipped', curve: null, seen: null })],
    ['Row 4', 'Row 8'],
    14_400,
  );
  expect(said[0]).toMatch(/^300 ms of sound were lost/);
  expect(said[1]).toMatch(/^Row 8 is clipped: lower/);
});

it('tells how far one lies over the other', () => {
  const said = say(
    [now('a', { seen: null }), now('b', { curve: curve(-3), seen: null })],
    ['Row 4', 'Row 8'],
  );
  expect(said).toEqual(['Row 8 less Row 4, 100 Hz to 5 kHz: \u22123.0 dB, and 0.0 dB RMS around that.']);
});
