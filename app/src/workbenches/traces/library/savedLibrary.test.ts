import { newProject } from '@pebble-hall/core/project';
import { curveOfShapes } from '@pebble-hall/core/traces';
import { expect, it } from 'vitest';
import { newTrace } from '../../../services/newTrace';
import { libraryTable, savedLibrary } from './savedLibrary';

const shapes = [{ kind: 'peaking' as const, hz: 1000, gainDb: 6, q: 1 }];
const trace = newTrace({
  kind: 'transfer function',
  name: 'Six up',
  arrayId: null,
  origin: { by: 'computed', formula: { op: 'shapes', of: [], shapes } },
});
const project = {
  ...newProject('p', {
    name: 'Loft',
    kind: 'hall',
    size: { x: 9, y: 6, z: 4 },
    layoutId: 'none',
    rig: 'simulated',
  }),
  kept: [trace],
};
const drawn = [{ id: trace.id, colour: 'trace-kelp', curve: curveOfShapes(shapes), dash: [7, 5] }];

it('what is shown goes out as a table, level and phase at every point, unsigned where it is above 0', () => {
  const { columns, rows } = libraryTable(project, drawn);
  expect(columns).toEqual(['Frequency, Hz', 'Six up, dB', 'Six up, degrees']);
  expect(rows.length).toBeGreaterThan(470);
  const at = rows.find((r) => Math.abs(Number(r[0]) / 1000 - 1) < 0.008)!;
  expect(Number(at[1])).toBeCloseTo(6, 1);
  expect(Math.abs(Number(at[2]!.replace('\u2212', '-')))).toBeLessThan(1);
});

it('and as a picture, with the name, the line and the part that is looked at', () => {
  const plot = savedLibrary(project, drawn, { fromHz: 100, toHz: 8000, lowDb: -10, highDb: 10 }, 12);
  expect(plot.x).toMatchObject({ from: 100, to: 8000 });
  expect(plot.lines).toMatchObject([{ label: 'Six up', dash: '7 5', colour: '#1f7a74' }]);
});
