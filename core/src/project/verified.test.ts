import { loudspeakerById } from './loudspeakers.js';
import { netLoftProject } from '../../../demo/netLoftProject';
import { plainOutput } from '../processing/index.js';
import type { MemoryLoad, Project } from './types.js';
import { describe, expect, it } from 'vitest';
import { lowInput } from './lowInput.js';
import { sweepForTest } from '../../../demo/sweepForTest';
import { verdictKey, verifiedIds, verifiedOf } from './verified.js';

const project = netLoftProject();
const span = { from: 40, to: 16000 };
const bassFeed = { gainDb: 0, lowPass: null };
const outputOf = (id: string) => loudspeakerById(project.place, id)!.output;
const outputs = Array.from({ length: 12 }, (_, i) => ({
  ...plainOutput(),
  bassFeed: i + 1 === outputOf('left') || i + 1 === outputOf('centre') ? bassFeed : null,
}));
const load: MemoryLoad = {
  id: 'load-1',
  letter: 'B',
  name: 'Loft evening',
  loadedAt: 10,
  checksum: 4711,
  filters: {},
  spans: { left: span, right: span, centre: span, 'sub-1': span },
  outputs,
  before: null,
  designKey: '',
  variantId: null,
  variantName: '',
  verdict: null,
};
const memory = (checksum: number) => ({ letter: 'B', name: 'Loft evening', checksum, hasFilters: true });

describe('what is measured again', () => {
  it('is every channel that was corrected; with its bass those alone that send some', () => {
    expect(verifiedIds(project, load, 'verified')).toEqual(['left', 'right', 'centre', 'sub-1']);
    expect(verifiedIds(project, load, 'verified with bass')).toEqual(['left', 'centre']);
    expect(verifiedIds(project, { ...load, outputs: null }, 'verified with bass')).toEqual([]);
  });

  it('belongs to a load by what the processor held: a newer sweep of another memory does not hide it', () => {
    const again = sweepForTest('home', 'left', { id: 'own', stage: 'verified', memory: memory(4711) });
    const other = sweepForTest('home', 'left', { id: 'other', stage: 'verified', memory: memory(1) });
    const withSweeps: Project = { ...project, sweeps: [again, other] };
    expect(verifiedOf(withSweeps, load, 'left')?.id).toBe('own');
    expect(verifiedOf({ ...project, sweeps: [other] }, load, 'left')).toBeUndefined();
    expect(verifiedOf(withSweeps, load, 'left', 'spot-2')).toBeUndefined();
    expect(verifiedOf(withSweeps, load, 'left', 'home', 'verified with bass')).toBeUndefined();
  });

  it('takes the newest of several', () => {
    const sweeps = ['first', 'second'].map((id) =>
      sweepForTest('home', 'left', { id, stage: 'verified', memory: memory(4711) }),
    );
    expect(verifiedOf({ ...project, sweeps }, load, 'left')?.id).toBe('second');
  });
});

describe('the low-frequency channel', () => {
  it('takes the first input whose output has no loudspeaker', () => {
    expect(lowInput(project, 12)).toBe(8);
    expect(() => lowInput(project, 7)).toThrow('no input is left');
  });
});

describe('what a verdict rests on', () => {
  const found = sweepForTest('home', 'left', { id: 'found' });
  const again = sweepForTest('home', 'left', { id: 'again', stage: 'verified', memory: memory(4711) });
  const key = (sweeps: Project['sweeps']) => verdictKey({ ...project, sweeps }, load);
  it('is both sweeps of every channel at the home spot, and how they are seen', () => {
    const now = key([found, again]);
    expect(key([found, again])).toBe(now);
    expect(key([found, { ...again, id: 'later' }])).not.toBe(now);
    expect(key([{ ...found, id: 'repeated' }, again])).not.toBe(now);
    expect(key([{ ...found, calibrationId: 'other' }, again])).not.toBe(now);
  });
  it('is not what was measured elsewhere, or with another memory', () => {
    const now = key([found, again]);
    const elsewhere = sweepForTest('spot-2', 'left', { id: 'x' });
    const other = sweepForTest('home', 'left', { id: 'y', stage: 'verified', memory: memory(1) });
    expect(key([found, elsewhere, other, again])).toBe(now);
  });
});
