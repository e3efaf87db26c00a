import { describe, expect, it } from 'vitest';
import {
  freeOutput,
  mirroredName,
  newPlace,
  plainLoudspeaker,
  USUAL_SIZE,
  withAligned,
  withDistributed,
  withDuplicates,
  withMirrored,
  withMoved,
  withoutThings,
  type Place,
} from './index.js';

const hall: Place = newPlace({ name: 'Hall', kind: 'hall', size: USUAL_SIZE.hall, layoutId: 'mains' });
const place: Place = {
  ...hall,
  seats: [{ id: 'desk', name: 'Desk', position: { x: 18, y: 6, z: 1.2 } }],
  fixtures: [
    { id: 'stage', name: 'Stage left', kind: 'stage', x: 0, y: 2, width: 3, depth: 4, bottom: 0, top: 0.8 },
  ],
};
const at = (p: Place, id: string) => p.loudspeakers.find((l) => l.id === id)!.position;
let n = 0;
const newId = () => `new-${++n}`;

describe('what is chosen', () => {
  it('moves together, each kind in its way, and nothing else does', () => {
    const ids = new Set(['channel-1', 'desk', 'stage', 'audience-1', 'home']);
    const next = withMoved(place, ids, { x: 1, y: -0.5, z: 0.25 });
    const [from, to] = [at(place, 'channel-1'), at(next, 'channel-1')];
    expect(to.x - from.x).toBeCloseTo(1, 9);
    expect(to.y - from.y).toBeCloseTo(-0.5, 9);
    expect(to.z - from.z).toBeCloseTo(0.25, 9);
    expect(at(next, 'channel-2')).toBe(at(place, 'channel-2'));
    expect(next.seats[0]!.position).toEqual({ x: 19, y: 5.5, z: 1.45 });
    expect(next.fixtures[0]).toMatchObject({ x: 1, y: 1.5, bottom: 0.25, top: 1.05 });
    expect(next.audience[0]!.outline[0]!.x).toBeCloseTo(place.audience[0]!.outline[0]!.x + 1, 9);
    expect(next.spots[1]).toBe(place.spots[1]);
  });

  it('stays where it is locked, moved or removed', () => {
    const locked = {
      ...place,
      loudspeakers: place.loudspeakers.map((l) => (l.id === 'channel-1' ? { ...l, locked: true } : l)),
    };
    const ids = new Set(['channel-1', 'channel-2']);
    expect(at(withMoved(locked, ids, { x: 1, y: 0, z: 0 }), 'channel-1')).toBe(at(locked, 'channel-1'));
    expect(withoutThings(locked, ids).loudspeakers.map((l) => l.id)).not.toContain('channel-2');
    expect(withoutThings(locked, ids).loudspeakers.map((l) => l.id)).toContain('channel-1');
  });

  it('is removed, but for the home spot', () => {
    const next = withoutThings(place, new Set(['home', 'spot-2', 'stage', 'desk', 'audience-1']));
    expect(next.spots.map((s) => s.id)).toEqual(['home', 'spot-3']);
    expect([next.fixtures, next.seats, next.audience]).toEqual([[], [], []]);
  });

  it('is copied beside itself: names and outputs of its own', () => {
    const { place: next, ids } = withDuplicates(place, new Set(['channel-1', 'stage']), newId, {
      x: 0.5,
      y: 0,
      z: 0,
    });
    expect(ids.size).toBe(2);
    const copy = next.loudspeakers.at(-1)!;
    expect(copy).toMatchObject({
      name: 'Main left 2',
      abbreviation: 'ML2',
      output: 8,
      model: place.loudspeakers[0]!.model,
    });
    expect(copy.position.x).toBeCloseTo(at(place, 'channel-1').x + 0.5, 9);
    expect(next.fixtures.map((f) => f.x)).toEqual([0, 0.5]);
  });

  it('is mirrored to the other side of the centre line, with the name of that side', () => {
    const left = plainLoudspeaker({
      id: 'hang',
      name: 'Hang left',
      role: 'full range',
      output: 9,
      position: { x: 4, y: 3, z: 5 },
      aimDeg: 12,
      pitchDeg: -10,
      rollDeg: 5,
      group: { kind: 'line', spacingM: 0.3, splayDeg: [1, 2] },
    });
    const { place: next } = withMirrored(
      { ...place, loudspeakers: [left] },
      new Set(['hang', 'stage']),
      newId,
    );
    expect(next.loudspeakers[1]).toMatchObject({
      name: 'Hang right',
      output: 1,
      position: { x: 4, y: 11, z: 5 }, // the hall is 14 m wide
      aimDeg: -12,
      pitchDeg: -10,
      rollDeg: -5,
      group: left.group,
    });
    expect(next.fixtures[1]).toMatchObject({ name: 'Stage right', y: 8, depth: 4 });
  });

  it('is brought into line and set at equal steps', () => {
    const ids = new Set(['channel-1', 'channel-3', 'channel-4']);
    const level = withAligned(place, ids, 'z');
    expect(new Set([...ids].map((id) => at(level, id).z)).size).toBe(1);
    const ys = [...ids].map((id) => at(withDistributed(place, ids, 'y'), id).y).sort((a, b) => a - b);
    expect(ys[1]! - ys[0]!).toBeCloseTo(ys[2]! - ys[1]!, 3);
    const before = [...ids].map((id) => at(place, id).y);
    expect([ys[0], ys[2]]).toEqual([Math.min(...before), Math.max(...before)]);
    expect(withDistributed(place, new Set(['channel-1']), 'y')).toBe(place);
  });
});

it('finds outputs that are free, and the name of the other side', () => {
  expect(freeOutput({ loudspeakers: place.loudspeakers.filter((l) => l.output !== 3) })).toBe(3);
  expect(mirroredName('Surround left, rear')).toBe('Surround right, rear');
  expect(mirroredName('Delays')).toBe('Delays');
});
