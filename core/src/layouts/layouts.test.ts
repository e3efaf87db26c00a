import { describe, expect, it } from 'vitest';
import { distanceBetween } from '../geometry/index.js';
import { LAYOUTS, layoutPosition, offLayout } from './index.js';

const layout = (id: string) => LAYOUTS.find((l) => l.id === id)!;
const anglesOf = (id: string, role: 'full range' | 'subwoofer' = 'full range') =>
  layout(id)
    .channels.filter((c) => c.role === role)
    .map((c) => [c.azimuthDeg, c.elevationDeg]);
const sorted = (angles: (number | null)[][]) => angles.map((a) => a.join()).sort();

describe('layouts', () => {
  it('of ITU-R BS.775 stand at 0, 30 and 110 degrees', () => {
    expect(sorted(anglesOf('5.1'))).toEqual(
      sorted([
        [30, 0],
        [-30, 0],
        [0, 0],
        [110, 0],
        [-110, 0],
      ]),
    );
    expect(anglesOf('5.1', 'subwoofer')).toHaveLength(1);
  });

  // upper, middle and lower loudspeakers, as the name of each system counts them
  it.each(['2+5+0', '4+5+0', '4+5+1', '3+7+0', '4+9+0', '9+10+3'])('%s has as many in each layer', (id) => {
    const [upper, middle, lower] = id.split('+').map(Number);
    const heights = anglesOf(id).map(([, elevation]) => Math.sign(elevation!));
    expect(heights.filter((h) => h > 0)).toHaveLength(upper!);
    expect(heights.filter((h) => h === 0)).toHaveLength(middle!);
    expect(heights.filter((h) => h < 0)).toHaveLength(lower!);
  });

  it('are the same on both sides, and no two channels share a label', () => {
    for (const { id, channels } of LAYOUTS) {
      const full = anglesOf(id);
      const mirrored = full.map(([a, e]) => [a === 180 || a === 0 ? a! : -a!, e!]);
      expect(sorted(mirrored), id).toEqual(sorted(full));
      expect(new Set(channels.map((c) => c.label)).size, id).toBe(channels.length);
      expect(new Set(channels.map((c) => c.name)).size, id).toBe(channels.length);
      for (const c of channels) {
        if (c.azimuthRange && c.azimuthDeg !== null) {
          expect(c.azimuthDeg).toBeGreaterThanOrEqual(c.azimuthRange[0]);
          expect(c.azimuthDeg).toBeLessThanOrEqual(c.azimuthRange[1]);
        }
      }
    }
  });
});

describe('a layout around a listener', () => {
  const listener = { position: { x: 3.6, y: 2, z: 1.2 }, facingDeg: 180 };
  const [left, right] = layout('5.1').channels;

  it('stands at its angles: facing along -x, the left one has the smaller y', () => {
    const at = layoutPosition(left!, listener, 2)!;
    // 2 m under 30 degrees: 1.732 m ahead, 1 m to the side
    expect(at.x).toBeCloseTo(3.6 - 1.7321, 4);
    expect(at.y).toBeCloseTo(1, 4);
    expect(at.z).toBeCloseTo(1.2, 12);
    expect(layoutPosition(right!, listener, 2)!.y).toBeCloseTo(3, 4);
  });

  it('is nowhere off where it was placed, at any distance and facing', () => {
    for (const { channels } of LAYOUTS)
      for (const channel of channels)
        for (const facingDeg of [0, 37, 180, -135]) {
          const seen = { ...listener, facingDeg };
          const at = layoutPosition(channel, seen, 2.5);
          if (!at) continue;
          expect(distanceBetween(at, listener.position)).toBeCloseTo(2.5, 9);
          const off = offLayout(channel, at, seen)!;
          expect(Math.abs(off.azimuthDeg) + Math.abs(off.elevationDeg)).toBeLessThan(1e-6);
        }
  });

  it('says by how many degrees, beyond what the recommendation allows', () => {
    const at = (azimuth: number, elevation = 0) =>
      layoutPosition({ ...left!, azimuthDeg: azimuth, elevationDeg: elevation }, listener, 2)!;
    expect(offLayout(left!, at(36), listener)!.azimuthDeg).toBeCloseTo(6, 6);
    expect(offLayout(left!, at(24), listener)!.azimuthDeg).toBeCloseTo(-6, 6);
    expect(offLayout(left!, at(30, 8), listener)!.elevationDeg).toBeCloseTo(8, 6);
    const surround = layout('5.1').channels.find((c) => c.label === 'M+110')!;
    expect(offLayout(surround, at(118), listener)!.azimuthDeg).toBe(0);
    expect(offLayout(surround, at(135), listener)!.azimuthDeg).toBeCloseTo(15, 6);
    const behind = layout('9+10+3').channels.find((c) => c.label === 'M+180')!;
    expect(offLayout(behind, at(-170), listener)!.azimuthDeg).toBeCloseTo(10, 6);
  });

  it('asks nothing of a subwoofer, nor of what stands where the listener does', () => {
    const low = layout('5.1').channels.find((c) => c.role === 'subwoofer')!;
    expect(layoutPosition(low, listener, 2)).toBeNull();
    expect(offLayout(low, { x: 0, y: 0, z: 0 }, listener)).toBeNull();
    expect(offLayout(left!, listener.position, listener)).toBeNull();
  });
});
