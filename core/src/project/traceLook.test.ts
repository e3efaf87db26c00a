import { expect, it } from 'vitest';
import {
  isAsItWas,
  lookOf,
  plainSweepLook,
  plainView,
  withLook,
  type KeptTrace,
  type Project,
} from './index.js';

const kept = { id: 'k', view: plainView() } as KeptTrace;
const project: Pick<Project, 'kept' | 'sweepLooks'> = { kept: [kept], sweepLooks: {} };

it('a kept trace is looked at by itself; whether it is shown stays', () => {
  const softer = withLook(
    { ...project, kept: [{ ...kept, view: { ...plainView(), isShown: false } }] },
    'k',
    { gainDb: -3 },
  );
  expect(softer.kept[0]!.view).toEqual({ ...plainView(), isShown: false, gainDb: -3 });
  expect(lookOf(softer, 'k')!.gainDb).toBe(-3);
  expect(softer.sweepLooks).toEqual({});
});

it('a sweep keeps how it is looked at until it is seen as it was', () => {
  const once = withLook(project, 's', { gainDb: -3, colour: 'trace-iris' });
  const twice = withLook(once, 's', { delayS: 0.001 });
  expect(lookOf(twice, 's')).toEqual({
    ...plainSweepLook(),
    gainDb: -3,
    delayS: 0.001,
    colour: 'trace-iris',
  });
  expect(twice.kept).toBe(project.kept);
  const coloured = withLook(twice, 's', { gainDb: 0, delayS: 0 });
  expect(isAsItWas(lookOf(coloured, 's')!)).toBe(true);
  expect(lookOf(coloured, 's')!.colour).toBe('trace-iris');
  expect(withLook(coloured, 's', { colour: null }).sweepLooks).toEqual({});
  expect(lookOf(project, 'toString')).toBeNull();
});
