import { plainView, type KeptTrace, type Project } from '@pebble-hall/core/project';
import { LIBRARY_GRID, type Formula, type LibraryCurve } from '@pebble-hall/core/traces';
import { expect, it } from 'vitest';
import { leavesOf, seenTrace } from './libraryCurves';

const flat = (re: number, change: Partial<LibraryCurve> = {}): LibraryCurve => ({
  frequency: LIBRARY_GRID,
  re: LIBRARY_GRID.map(() => re),
  im: LIBRARY_GRID.map(() => 0),
  coherence: LIBRARY_GRID.map(() => NaN),
  hasPhase: true,
  ...change,
});
const file = (id: string, hasPhase = true): KeptTrace => ({
  id,
  kind: 'transfer function',
  name: id,
  keptAt: 0,
  note: '',
  folder: '',
  tags: [],
  arrayId: `array-${id}`,
  origin: { by: 'file', fileName: '', columns: [], hasPhase, notes: [] },
  view: plainView(),
});
const computed = (id: string, formula: Formula): KeptTrace => ({
  ...file(id),
  arrayId: null,
  origin: { by: 'computed', formula },
});
const shelf = (kept: KeptTrace[]) =>
  ({ kept, sweeps: [], calibrations: {} }) as unknown as Pick<Project, 'kept' | 'sweeps' | 'calibrations'>;
const curves: Record<string, LibraryCurve> = { a: flat(1), b: flat(2) };
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
  const noPhase = (id: string) => (id === 'b' ? flat(2, { hasPhase: false }) : curveOf(id));
  expect(seenTrace(shelf([file('a'), file('b', false), sum]), 's', noPhase).problem).toMatch(/no phase/);
  const self = computed('s', { op: 'inverse', of: ['s'] });
  expect(seenTrace(shelf([self]), 's', curveOf).problem).toMatch(/rests on itself/);
  expect(seenTrace(shelf([]), 'x', curveOf).problem).toBe('It is gone.');
});

it('waits for samples that are still being read', () => {
  expect(seenTrace(shelf([file('a'), file('b'), sum]), 's', () => null)).toEqual({
    curve: null,
    problem: null,
  });
});
