import type { Corners } from '@pebble-hall/core/views';
import { expect, it } from 'vitest';
import { cornerTable } from './cornerTable';
import type { ChannelLevels } from './readLevels';

const none = new Float64Array(0);
const channel = (name: string, corners: Corners): ChannelLevels => ({
  id: name,
  name,
  band: { from: 20, to: 20000 },
  spots: [],
  spotNames: [],
  averageDb: none,
  lowDb: none,
  highDb: none,
  otherDb: null,
  corners,
  features: [],
});

it('lists where each channel rolls off, from the outside in and out again, and its level against the loudest', () => {
  const { columns, rows } = cornerTable([
    channel('Left', {
      levelDb: -31.2,
      low: { 3: 61.4, 6: 52, 10: 44 },
      high: { 3: 15200, 6: 17800, 10: null },
    }),
    channel('Sub 1', { levelDb: -28.2, low: { 3: 30, 6: 26, 10: null }, high: { 3: 80, 6: 95, 10: 110 } }),
  ]);
  expect(rows.every((r) => r.length === columns.length)).toBe(true);
  const left = Object.fromEntries(columns.map((c, i) => [c, rows[0]![i]]));
  expect(left).toMatchObject({
    Channel: 'Left',
    '−10 dB from': '44 Hz',
    '−3 dB from': '61.4 Hz',
    '−3 dB to': '15.2 kHz',
    '−10 dB to': 'beyond',
    'Against the loudest': '−3.0 dB',
  });
  expect(rows[1]).toEqual(expect.arrayContaining(['Sub 1', 'beyond', '0.0 dB']));
});
