import { logGrid } from '@pebble-hall/core/signal';
import { expect, it } from 'vitest';
import { handleInWidestGap, targetHandles } from './targetHandles';

const grid = logGrid();
const target = {
  handles: [
    { frequency: 100, levelDb: 0 },
    { frequency: 10000, levelDb: -4 },
  ],
  lowLiftDb: 0,
  highTiltDb: 0,
  keepsRollOff: true,
  lowExtensionHz: null,
  highExtensionHz: null,
};
// the curve stands 2 dB above what the handles say, 30 dB down in all
const straight = (f: number) => (f <= 100 ? 0 : f >= 10000 ? -4 : -2 * Math.log10(f / 100));
const design = { targetDb: grid.map((f) => straight(f) + 2 - 30), targetOffsetDb: -30 };

function handled() {
  const edits: [string, { frequency: number; levelDb: number }[], boolean | undefined][] = [];
  const events = targetHandles(target, design, grid, (label, next, done) =>
    edits.push([label, next(target).handles, done]),
  );
  return { events, edits };
}

it('tells how far the curve lies above its handles', () => {
  const { events } = handled();
  for (const f of [30, 100, 1000, 15000]) expect(events.onTopDb!(f)).toBeCloseTo(2, 1);
});

it('adds a handle where the hand points: on the curve, less what comes on top', () => {
  const { events, edits } = handled();
  events.onAdd(1000, -25);
  expect(edits).toEqual([
    ['target handle added', [...target.handles, { frequency: 1000, levelDb: 3 }], undefined],
  ]);
});

it('moves one handle, and never removes the last', () => {
  const { events, edits } = handled();
  const moved = { frequency: 120, levelDb: 1 };
  events.onMove(0, moved, false);
  expect(edits[0]).toEqual(['target handle moved', [moved, target.handles[1]], false]);
  events.onRemove(1);
  expect(edits[1]![1]).toEqual([target.handles[0]]);
  const single = { ...target, handles: target.handles.slice(0, 1) };
  targetHandles(single, design, grid, () => expect.unreachable()).onRemove(0);
});

it('puts a new handle where there is most room, on the curve', () => {
  // from 100 Hz to 10 kHz the room is widest; half-way between 0 and -4 dB the monotone cubic is at -2 dB
  expect(handleInWidestGap(target.handles)).toEqual({ frequency: 1000, levelDb: -2 });
  expect(handleInWidestGap([{ frequency: 40, levelDb: 3 }])).toEqual({ frequency: 890, levelDb: 3 });
});
