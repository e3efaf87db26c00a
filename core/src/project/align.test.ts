import { describe, expect, it } from 'vitest';
import { SECTION_KINDS, type SectionKind } from '../path/index.js';
import { FILES_ONLY } from '../processing/index.js';
import {
  channelSettings,
  checkProject,
  STARTING_CORRECTION,
  takeAligned,
  newProject,
  newStep,
  partsTogether,
  plainSetting,
  playedDelays,
  stepsBelow,
  USUAL_SIZE,
  type AlignSource,
  type AlignStep,
  type Project,
} from './index.js';

const source = (id: string, of: AlignSource['of'], delayS = 0): AlignSource => ({
  ...plainSetting(),
  id,
  name: id,
  of,
  delayS,
});
const trace = (id: string) => source(id, { kind: 'traces', traceIds: [id], shownId: id });
const of = (id: string) => source(`of-${id}`, { kind: 'step', stepId: id });

it('a step rests on what its groups rest on', () => {
  const steps = [
    newStep('pair', 'Pair', [trace('a'), trace('b')]),
    newStep('mains', 'Mains', [trace('c'), of('pair')]),
    newStep('fills', 'Fills', [trace('d'), of('mains')]),
  ];
  expect(stepsBelow(steps, 'pair')).toEqual(new Set());
  expect(stepsBelow(steps, 'fills')).toEqual(new Set(['mains', 'pair']));
});

it('nothing plays earlier than it can: the others wait instead', () => {
  const step = newStep('s', 'S', [trace('main'), trace('sub'), trace('fill')]);
  const set = {
    sources: step.sources.map((s) => ({ ...s, delayS: { main: 0, sub: -0.004, fill: 0.002 }[s.id]! })),
  };
  const played = playedDelays(set);
  expect(played.get('sub')).toBe(0);
  expect(played.get('main')).toBeCloseTo(0.004, 12);
  expect(played.get('fill')).toBeCloseTo(0.006, 12);
});

it('a project refuses steps that rest on themselves, or whose time reference is gone', () => {
  const project = newProject('p', {
    name: 'P',
    kind: 'listening room',
    size: USUAL_SIZE['listening room'],
    layoutId: '5.1',
    rig: 'simulated',
  });
  const pair = newStep('pair', 'Pair', [trace('a'), trace('b')]);
  expect(checkProject({ ...project, alignSteps: [pair] })).toHaveProperty('project');
  const gone = { ...pair, referenceId: 'z' };
  expect(checkProject({ ...project, alignSteps: [gone] })).toEqual({
    problem: 'the time reference of Pair is none of its sources',
  });
  const [one, two] = [
    newStep('one', 'One', [trace('a'), of('two')]),
    newStep('two', 'Two', [trace('b'), of('one')]),
  ];
  expect(checkProject({ ...project, alignSteps: [one, two] })).toEqual({
    problem: 'the alignment One rests on itself',
  });
});

const channel = (id: string, setting: Partial<AlignSource> = {}) => ({
  ...source(id, { kind: 'channels', loudspeakerIds: [id], from: 'sweeps' }),
  ...setting,
});

describe('taken over into a correction', () => {
  const project = newProject('p', {
    name: 'P',
    kind: 'listening room',
    size: USUAL_SIZE['listening room'],
    layoutId: '5.1',
    rig: 'simulated',
  });
  const [main, other, sub] = project.place.loudspeakers.map((l) => l.id) as [string, string, string];
  const plain = { trimDb: 0, delayMs: 0, inverted: false };
  const correction = {
    ...STARTING_CORRECTION,
    alignment: { [main]: { trimDb: -1, delayMs: 2, inverted: true } },
  };

  it('the time reference stays, and the other is set against it', () => {
    const step = newStep('s', 'S', [
      channel(main),
      channel(sub, { gainDb: -2.5, delayS: 0.0064, inverted: true }),
    ]);
    const taken = takeAligned({ ...project, alignSteps: [step] }, correction, step, FILES_ONLY)!;
    expect(taken.waitsMs).toBe(0);
    expect(taken.correction.alignment[main]).toEqual(correction.alignment[main]);
    // inverted against what is inverted already
    expect(taken.correction.alignment[sub]).toEqual({ trimDb: -3.5, delayMs: 8.4, inverted: false });
    expect(taken.correction.alignment[other]).toEqual(plain);
  });

  it('where one would have to come earlier, all the others wait', () => {
    const step = newStep('s', 'S', [channel(main), channel(sub, { delayS: -0.005 })]);
    const taken = takeAligned({ ...project, alignSteps: [step] }, correction, step, FILES_ONLY)!;
    expect(taken.waitsMs).toBeCloseTo(3, 9);
    const { alignment } = taken.correction;
    expect([alignment[main]!.delayMs, alignment[sub]!.delayMs, alignment[other]!.delayMs]).toEqual([5, 0, 3]);
  });

  it('crossovers go along where models were told without any; what was swept keeps those of its memory', () => {
    const lowPass = { kind: 'Linkwitz-Riley' as const, order: 4, frequency: 90 };
    const highPass = { ...lowPass, frequency: 80 };
    const byModel = (id: string, setting: Partial<AlignSource>) => ({
      ...channel(id, setting),
      of: { kind: 'channels' as const, loudspeakerIds: [id], from: 'models' as const },
    });
    const low = project.place.loudspeakers.find((l) => l.role === 'subwoofer')!.id;
    const before = { ...STARTING_CORRECTION, crossovers: { [main]: { highPass: null, lowPass } } };
    const step = newStep('s', 'S', [
      byModel(main, { highPass, lowPass: highPass }),
      byModel(low, { lowPass }),
    ]);
    const taken = takeAligned({ ...project, alignSteps: [step] }, before, step, FILES_ONLY)!;
    expect(taken.correction.crossovers).toEqual({
      // its low-pass is of the bass that it sends away, and stays
      [main]: { highPass, lowPass },
      [low]: { highPass: null, lowPass },
    });
    const swept = newStep('t', 'T', [channel(main), channel(sub)]);
    expect(
      takeAligned({ ...project, alignSteps: [swept] }, before, swept, FILES_ONLY)!.correction.crossovers,
    ).toEqual(before.crossovers);
  });

  it('all-passes go along as far as the processor knows such sections, in place of those before', () => {
    const [second, first] = [
      { hz: 80, q: 0.7 },
      { hz: 45, q: null },
    ];
    const step = newStep('s', 'S', [channel(main), channel(sub, { allPasses: [second, first] })]);
    const before = { ...STARTING_CORRECTION, allPasses: { [main]: [first], [sub]: [first, first] } };
    const taken = (sectionKinds: readonly SectionKind[]) =>
      takeAligned({ ...project, alignSteps: [step] }, before, step, { sectionKinds })!.correction.allPasses;
    expect(taken(SECTION_KINDS)).toEqual({ [main]: [first], [sub]: [second, first] });
    expect(taken(['peak', 'all-pass'])).toEqual({ [main]: [first], [sub]: [second] });
    // what it cannot be asked for is not there
    expect(taken(['peak'])).toEqual({ [main]: [first] });
  });

  it('a group moves as one, with what was set inside it', () => {
    const pair = newStep('pair', 'Pair', [channel(other), channel(sub, { delayS: 0.001, inverted: true })]);
    const step = newStep('s', 'S', [channel(main), { ...of('pair'), gainDb: 2, delayS: 0.003 }]);
    const steps = [pair, step];
    expect(channelSettings(steps, step)!.get(sub)).toMatchObject({
      gainDb: 2,
      delayS: 0.004,
      inverted: true,
    });
    const taken = takeAligned({ ...project, alignSteps: steps }, STARTING_CORRECTION, step, FILES_ONLY)!;
    expect(taken.correction.alignment[other]).toEqual({ trimDb: 2, delayMs: 3, inverted: false });
    expect(taken.correction.alignment[sub]).toEqual({ trimDb: 2, delayMs: 4, inverted: true });
    // nothing of it is a channel here
    const strange = newStep('t', 'T', [channel(main), trace('a')]);
    expect(
      takeAligned({ ...project, alignSteps: [strange] }, STARTING_CORRECTION, strange, FILES_ONLY),
    ).toBeNull();
  });
});

describe('all of a step in one go', () => {
  const place = {
    loudspeakers: ['main', 'sub', 'fill'].map((id) => ({ id, name: id.toUpperCase() })),
  };
  const known = (...alignSteps: AlignStep[]) => ({ place, alignSteps }) as unknown as Project;

  it('none plays earlier than it can, and none louder than it was swept', () => {
    const step = newStep('s', 'S', [
      channel('main', { gainDb: 2 }),
      channel('sub', { gainDb: -3, delayS: -0.004, inverted: true }),
    ]);
    const { parts, lowerDb } = partsTogether(known(step), step)!;
    expect(lowerDb).toBe(2);
    expect(parts.map((p) => [p.name, p.as.gainDb, p.as.inverted])).toEqual([
      ['MAIN', 0, false],
      ['SUB', -5, true],
    ]);
    expect(parts.map((p) => p.as.delayS)).toEqual([0.004, 0]);
  });

  it('a group plays all that is in it', () => {
    const pair = newStep('pair', 'Pair', [channel('main'), channel('sub', { delayS: 0.001 })]);
    const step = newStep('s', 'S', [of('pair'), channel('fill', { delayS: 0.01 })]);
    const { parts } = partsTogether(known(pair, step), step)!;
    expect(parts.map((p) => [p.loudspeakerId, p.as.delayS])).toEqual([
      ['main', 0],
      ['sub', 0.001],
      ['fill', 0.01],
    ]);
  });

  it('only what was swept can be played', () => {
    const byModel = { ...channel('sub'), of: { kind: 'channels', loudspeakerIds: ['sub'], from: 'models' } };
    for (const other of [trace('a'), byModel as AlignSource, channel('gone')]) {
      const step = newStep('s', 'S', [channel('main'), other]);
      expect(partsTogether(known(step), step)).toBeNull();
    }
  });
});
