import { describe, expect, it } from 'vitest';
import {
  changedBelow,
  newStep,
  noted,
  plainLoudspeaker,
  plainSetting,
  systemGroups,
  systemSteps,
  withSource,
  type AlignSource,
  type Loudspeaker,
} from './index.js';

const box = (
  name: string,
  model: string,
  x: number,
  y: number,
  change: Partial<Loudspeaker> = {},
): Loudspeaker => ({
  ...plainLoudspeaker({
    id: name.toLowerCase().replaceAll(' ', '-'),
    name,
    feed: '',
    model,
    role: 'full range',
    output: 1,
    position: { x, y, z: 3 },
  }),
  ...change,
});
const place = (...loudspeakers: Loudspeaker[]) => ({ place: { loudspeakers } }) as never;
const LARGEST: Record<string, number> = { Big: 136, Small: 120, Low: 130, Line: 124 };
const largest = (l: Loudspeaker) => LARGEST[l.model]!;
const sub = { role: 'subwoofer' } as const;
const HALL = place(
  box('Fill', 'Small', 4, 6),
  box('Main left', 'Big', 4, 2, { aimDeg: 10 }),
  box('Sub left', 'Low', 3.5, 4, sub),
  box('Main right', 'Big', 4, 10, { aimDeg: -10 }),
  box('Sub right', 'Low', 3.5, 8, sub),
  box('Gallery', 'Line', 20, 6),
  box('Delays', 'Line', 12, 6),
  box('Spare', 'Big', 12, 3, { fitted: false }),
);

describe('the groups of a system', () => {
  it('the loudest of what plays the full range are the mains; the others by what they are and how far ahead', () => {
    expect(systemGroups(HALL, largest).map((g) => [g.role, g.name])).toEqual([
      ['mains', 'Main left and Main right'],
      ['subwoofers', 'Sub left and Sub right'],
      ['fills', 'Fill'],
      ['delay line', 'Delays'],
      ['delay line', 'Gallery'],
    ]);
    expect(systemGroups(HALL, largest).map((g) => +g.aheadM.toFixed(6))).toEqual([0, -0.5, 0, 8, 16]);
  });

  it('ahead is where the mains look, however the place is turned', () => {
    const turned = place(box('Main', 'Big', 5, 5, { aimDeg: 90 }), box('Far', 'Line', 5, 15, { aimDeg: 90 }));
    expect(systemGroups(turned, largest).at(-1)).toMatchObject({ role: 'delay line', aheadM: 10 });
  });

  it('without anything of the full range there is no system', () => {
    expect(systemGroups(place(box('Sub', 'Low', 0, 0, sub)), largest)).toEqual([]);
    expect(systemSteps([], () => 'x')).toEqual([]);
  });
});

it('each step is against everything before it', () => {
  let n = 0;
  const steps = systemSteps(systemGroups(HALL, largest), () => `id-${++n}`);
  expect(steps.map((s) => s.name)).toEqual([
    'Mains with subwoofers',
    'Fills to the mains',
    'Delays to what is before',
    'Gallery to what is before',
  ]);
  expect(steps[0]!.sources.map((s) => s.of)).toEqual([
    { kind: 'channels', loudspeakerIds: ['main-left', 'main-right'], from: 'models' },
    { kind: 'channels', loudspeakerIds: ['sub-left', 'sub-right'], from: 'models' },
  ]);
  steps.slice(1).forEach((step, i) => {
    expect(step.sources[0]!.of).toEqual({ kind: 'step', stepId: steps[i]!.id });
    expect(step.referenceId).toBe(step.sources[0]!.id);
    expect(step.sources[0]!.name).toBe(
      ['Mains and subwoofers', 'Mains, subwoofers and fills', 'Mains, subwoofers, fills and delay line'][i],
    );
  });
});

describe('a step that rests on another', () => {
  const trace = (id: string): AlignSource => ({
    ...plainSetting(),
    id,
    name: id,
    of: { kind: 'traces', traceIds: [id], shownId: id },
  });
  const group = (id: string): AlignSource => ({ ...trace(`of-${id}`), of: { kind: 'step', stepId: id } });
  const made = noted(
    [],
    [
      newStep('one', 'One', [trace('a'), trace('b')]),
      newStep('two', 'Two', [group('one'), trace('c')]),
      newStep('three', 'Three', [group('two'), trace('d')]),
    ],
  );
  const change = (id: string, sourceId: string, delayS: number, steps = set(made)) =>
    noted(
      steps,
      steps.map((s) => (s.id === id ? withSource(s, sourceId, { delayS }) : s)),
    );
  /** as somebody has set them */
  const set = (steps: typeof made) =>
    noted(
      [],
      steps.map((s) => withSource(s, s.sources[1]!.id, { gainDb: -1 })),
    );
  const told = (steps: typeof made, id: string) =>
    changedBelow(
      steps,
      steps.find((s) => s.id === id)!,
    ).map((s) => s.name);

  it('knows when that was set otherwise since, however far below', () => {
    expect(told(set(made), 'three')).toEqual([]);
    const moved = change('one', 'b', 0.004);
    expect(told(moved, 'two')).toEqual(['One']);
    expect(told(moved, 'three')).toEqual(['One']);
    expect(told(moved, 'one')).toEqual([]);
    // set back, nothing is other than it was
    expect(told(change('one', 'b', 0, moved), 'two')).toEqual([]);
  });

  it('set anew it rests on what is there now; what is above it is told of it', () => {
    const again = change('two', 'c', 0.001, change('one', 'b', 0.004));
    expect(told(again, 'two')).toEqual([]);
    expect(told(again, 'three')).toEqual(['One', 'Two']);
  });

  it('never set, it rests on nothing yet', () => {
    const moved = change('one', 'b', 0.004, made);
    expect(told(moved, 'two')).toEqual([]);
    expect(
      told(
        moved.map((s) => ({ ...s, isDone: true })),
        'two',
      ),
    ).toEqual(['One']);
  });

  it('ticked off or renamed it stays as it was noted', () => {
    const moved = change('one', 'b', 0.004);
    const ticked = noted(
      moved,
      moved.map((s) => ({ ...s, isDone: true })),
    );
    expect(told(ticked, 'two')).toEqual(['One']);
  });
});
