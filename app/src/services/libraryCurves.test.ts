import { plainSweepLook, plainView, type KeptTrace, type Sweep } from '@pebble-hall/core/project';
import type { Formula, LibraryCurve } from '@pebble-hall/core/traces';
import { expect, it } from 'vitest';
import { flatCurve, traceOfFile } from './curvesForTest';
import { leavesOf, seenTrace, type Shelf } from './libraryCurves';
import { isReference, references } from './references';

const file = (id: string, hasPhase = true) =>
  traceOfFile(id, { origin: { by: 'file', fileName: '', columns: [], hasPhase, notes: [] } });
const computed = (id: string, formula: Formula): KeptTrace => ({
  ...file(id),
  arrayId: null,
  origin: { by: 'computed', formula },
});
const shelf = (kept: KeptTrace[]) =>
  ({ kept, sweeps: [], sweepLooks: {}, calibrations: {}, place: { models: [] } }) as unknown as Shelf;
const curves: Record<string, LibraryCurve> = { a: flatCurve(1), b: flatCurve(2) };
const curveOf = (id: string) => curves[id] ?? null;
const sum = computed('s', { op: 'sum', of: ['a', 'b'] });

it('a computed trace follows what it rests on, as that is seen', () => {
  expect(seenTrace(shelf([file('a'), file('b'), sum]), 's', curveOf).curve!.re[9]).toBe(3);
  const inverted = { ...file('b'), view: { ...plainView(), inverted: true } };
  expect(seenTrace(shelf([file('a'), inverted, sum]), 's', curveOf).curve!.re[9]).toBe(-1);
  const softer = { ...sum, view: { ...plainView(), gainDb: -20 } };
  expect(seenTrace(shelf([file('a'), file('b'), softer]), 's', curveOf).curve!.re[9]).toBeCloseTo(0.3, 9);
});

it('over several others, and reads the samples of each only once', () => {
  const twice = computed('t', { op: 'ratio', of: ['s', 'a'] });
  const all = shelf([file('a'), file('b'), sum, twice]);
  expect(leavesOf(all, ['t', 's']).sort()).toEqual(['a', 'b']);
  expect(seenTrace(all, 't', curveOf).curve!.re[0]).toBe(3);
});

it('is broken in plain words when a source goes, has no phase, or is itself', () => {
  expect(seenTrace(shelf([file('a'), sum]), 's', curveOf)).toEqual({
    curve: null,
    problem: 'A trace that it rests on is gone. Undo that, or compute it anew.',
  });
  const third = computed('t', { op: 'inverse', of: ['s'] });
  expect(seenTrace(shelf([file('a'), sum, third]), 't', curveOf).problem).toMatch(
    /^What it rests on is broken/,
  );
  const noPhase = (id: string) => (id === 'b' ? flatCurve(2, { hasPhase: false }) : curveOf(id));
  expect(seenTrace(shelf([file('a'), file('b', false), sum]), 's', noPhase).problem).toMatch(/no phase/);
  const self = computed('s', { op: 'inverse', of: ['s'] });
  expect(seenTrace(shelf([self]), 's', curveOf).problem).toMatch(/rests on itself/);
  expect(seenTrace(shelf([]), 'x', curveOf).problem).toBe('It is gone.');
});

it('a sweep of the walk is seen through its look, and what rests on it, too', () => {
  const sweep = { id: 'b', traceId: 't', calibrationId: null } as Sweep;
  const of = (look: object): Shelf => ({
    ...shelf([file('a'), sum]),
    sweeps: [sweep],
    sweepLooks: { b: { ...plainSweepLook(), ...look } },
  });
  expect(seenTrace({ ...of({}), sweepLooks: {} }, 'b', curveOf).curve).toBe(curves['b']);
  expect(seenTrace(of({ inverted: true }), 's', curveOf).curve!.re[9]).toBe(-1);
  expect(seenTrace(of({ gainDb: 20 }), 'b', curveOf).curve!.re[0]).toBeCloseTo(20, 9);
  const worker = () => ({ curve: flatCurve(7), problem: null });
  const windowed = of({ window: { beforeS: 0.001, afterS: 0.01 } });
  expect(seenTrace(windowed, 'b', curveOf, worker).curve!.re[0]).toBe(7);
});

it('waits for samples that are still being read', () => {
  expect(seenTrace(shelf([file('a'), file('b'), sum]), 's', () => null)).toEqual({
    curve: null,
    problem: null,
  });
});

it('what takes long is asked for by all that it depends on, and nothing else', () => {
  const minimum = computed('m', { op: 'minimum phase', of: ['s'] });
  const keys: string[] = [];
  const seenWith = (kept: KeptTrace[], ready: boolean) =>
    seenTrace(shelf(kept), 'm', curveOf, (key) => {
      keys.push(key);
      return ready ? { curve: flatCurve(7), problem: null } : null;
    });
  expect(seenWith([file('a'), file('b'), sum, minimum], false)).toEqual({ curve: null, problem: null });
  // its own gain is put on what was worked out; that of a source is another curve
  const softer = { ...minimum, view: { ...plainView(), gainDb: -20 } };
  expect(seenWith([file('a'), file('b'), sum, softer], true).curve!.re[0]).toBeCloseTo(0.7, 9);
  const louder = { ...file('a'), view: { ...plainView(), gainDb: 6 } };
  seenWith([louder, file('b'), sum, minimum], true);
  expect(keys[0]).toBe(keys[1]);
  expect(keys[2]).not.toBe(keys[0]);
});

it('through a window and less a microphone file, which may be gone', () => {
  const view = { ...plainView(), window: { beforeS: 0.001, afterS: 0.01 }, calibrationId: 'mic' };
  const trace = { ...file('a'), view };
  const all = { ...shelf([trace]), calibrations: { mic: { frequency: [20, 20_000], levelDb: [20, 20] } } };
  const worker = () => ({ curve: flatCurve(10), problem: null });
  expect(seenTrace(all as never, 'a', curveOf, worker).curve!.re[0]).toBeCloseTo(1, 9);
  expect(seenTrace(shelf([trace]), 'a', curveOf, worker).problem).toMatch(/microphone file .* is gone/);
  const noPhase = { ...file('a', false), view: { ...view, calibrationId: null } };
  expect(seenTrace(shelf([noPhase]), 'a', () => flatCurve(1, { hasPhase: false }), worker).problem).toMatch(
    /Without a phase/,
  );
});

it('loudspeakers in the open are there without being stored, and can be computed with', () => {
  const [first] = references({ models: [] });
  const over = computed('o', { op: 'ratio', of: ['b', first!.id] });
  const of = (id: string) => (isReference(id) ? flatCurve(4) : curveOf(id));
  expect(leavesOf(shelf([file('b'), over]), ['o']).sort()).toEqual(['b', first!.id].sort());
  expect(seenTrace(shelf([file('b'), over]), 'o', of).curve!.re[0]).toBe(0.5);
  // a model of one's own that was removed breaks what rests on it
  const own = computed('o', { op: 'ratio', of: ['b', 'reference-own-m1'] });
  expect(seenTrace(shelf([file('b'), own]), 'o', of).problem).toMatch(/is gone/);
});
