import { expect, it } from 'vitest';
import { checkProject, newProject, USUAL_SIZE, withoutChosen, type Project, type Sweep } from './index.js';

const empty = newProject('p', {
  name: 'R',
  kind: 'listening room',
  size: USUAL_SIZE['listening room'],
  layoutId: '5.1',
  rig: 'simulated',
});
const project: Project = {
  ...empty,
  families: [{ id: 'f', name: 'Front', loudspeakerIds: ['channel-1', 'channel-2'] }],
  rig: {
    ...empty.rig,
    referenceFrom: 'channel-2',
    clickFrom: 'channel-1',
    distances: [
      { a: 'channel-1', b: 'channel-2', typedM: 2, heardM: null, adjustedM: null },
      { a: 'channel-1', b: 'home', typedM: 2, heardM: null, adjustedM: null },
    ],
    heardTraces: { 'channel-2': { 'channel-1': 't1' }, home: { 'channel-1': 't2', 'channel-2': 't3' } },
  },
  sweeps: [{ spotId: 'spot-2', loudspeakerId: 'channel-1' } as Sweep],
};

it('takes out what was said of a loudspeaker elsewhere, too, and leaves the rest', () => {
  const { place, rig, families } = withoutChosen(project, new Set(['channel-2', 'spot-3']));
  expect(place.loudspeakers.map((l) => l.id)).not.toContain('channel-2');
  expect(place.spots.map((s) => s.id)).toEqual(['home', 'spot-2']);
  expect(families![0]!.loudspeakerIds).toEqual(['channel-1']);
  expect(rig).toMatchObject({ referenceFrom: null, clickFrom: 'channel-1' });
  expect(rig.distances.map((d) => d.b)).toEqual(['home']);
  expect(rig.heardTraces).toEqual({ home: { 'channel-1': 't2' } });
});

it('keeps what was measured', () => {
  const next = withoutChosen(project, new Set(['channel-1', 'spot-2', 'home']));
  expect(next.place.loudspeakers).toHaveLength(6);
  expect(next.place.spots).toHaveLength(3);
  expect(
    checkProject({ ...withoutChosen({ ...project, sweeps: [] }, new Set(['channel-1'])) }),
  ).toHaveProperty('project');
});
