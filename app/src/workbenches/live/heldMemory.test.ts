import { liveGrid, type LiveFrame, type TransferCurve } from '@pebble-hall/core/live';
import { newLive } from '@pebble-hall/core/project';
import { expect, it } from 'vitest';
import { heldFrom, memorySentence } from './heldMemory';

const grid = liveGrid(48_000);
const curve = (db: number): TransferCurve => ({
  frequency: grid,
  re: grid.map(() => 10 ** (db / 20)),
  im: grid.map(() => 0),
  coherence: grid.map(() => 1),
});
const [measurement] = newLive([], 2).measurements;
const frame = (db: number | null) =>
  ({ measured: [{ id: measurement!.id, curve: db === null ? null : curve(db) }] }) as unknown as LiveFrame;

it('the memory that plays is held against the one before', () => {
  const held = heldFrom('A', frame(-3))!;
  expect(memorySentence(held, 'B', measurement!, frame(-1))).toBe(
    'Microphone: memory B less memory A, 100 Hz to 5 kHz: +2.0 dB, and 0.0 dB RMS around that.',
  );
  expect(memorySentence(held, 'B', measurement!, frame(null))).toBeNull();
  expect(heldFrom('A', frame(null))).toBeNull();
  expect(heldFrom('A', null)).toBeNull();
});
