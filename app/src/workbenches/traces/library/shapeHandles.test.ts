import { plainView, type KeptTrace } from '@pebble-hall/core/project';
import type { Shape } from '@pebble-hall/core/shapes';
import { expect, it } from 'vitest';
import { handlesOf, movedShapes, shapesIn, shapesOf, withShapes } from './shapeHandles';

const peak: Shape = { kind: 'peaking', hz: 1000, gainDb: 6, q: 1 };
const pass: Shape = { kind: 'high-pass', hz: 80, family: 'Bessel', order: 3 };
const trace = (origin: KeptTrace['origin']): KeptTrace => ({
  id: 't',
  kind: 'transfer function',
  name: 'T',
  keptAt: 0,
  note: '',
  folder: '',
  tags: [],
  arrayId: null,
  origin,
  view: plainView(),
});

it('a trace made of shapes is changed itself, any other one by what acts on it', () => {
  const own = trace({ by: 'computed', formula: { op: 'shapes', of: [], shapes: [peak] } });
  const of = (k: KeptTrace) => ({ kept: [k], sweepLooks: {} });
  const changed = withShapes(of(own), 't', [pass]);
  expect(shapesIn(changed, 't')).toEqual([pass]);
  expect(changed.kept[0]!.view.shapes).toEqual([]);
  const file = trace({ by: 'file', fileName: 'x.txt', columns: [], hasPhase: true, notes: [] });
  expect(withShapes(of(file), 't', [pass]).kept[0]!.view.shapes).toEqual([pass]);
  expect(shapesOf(file)).toEqual([]);
  const swept = withShapes(of(file), 'a sweep', [pass]);
  expect(shapesIn(swept, 'a sweep')).toEqual([pass]);
  expect(shapesIn(swept, 't')).toEqual([]);
});

it('a handle stands at its gain and moves what it stands for, to figures that one would type', () => {
  expect(handlesOf([peak, pass]).map((h) => h.db)).toEqual([6, null]);
  expect(movedShapes([peak, pass], '0', { hz: 1234.567, db: -3.217 })[0]).toMatchObject({
    hz: 1235,
    gainDb: -3.2,
  });
  expect(movedShapes([peak, pass], '1', { hz: 92.345, db: null })[1]).toMatchObject({ hz: 92.3, order: 3 });
  expect(movedShapes([peak], '0', { hz: 500, db: 1e6 })[0]).toMatchObject({ gainDb: 60 });
});
