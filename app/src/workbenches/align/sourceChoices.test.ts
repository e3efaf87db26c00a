import { newProject, newStep, plainSetting, USUAL_SIZE } from '@pebble-hall/core/project';
import { expect, it } from 'vitest';
import { chosenSource, groupsOfPlan, likelyPair, sourceChoices } from './sourceChoices';

const project = newProject('p', {
  name: 'P',
  kind: 'listening room',
  size: USUAL_SIZE['listening room'],
  layoutId: '5.1',
  rig: 'simulated',
});

it('without sweeps and traces there are the channels by their models, and loudspeakers at a distance', () => {
  const groups = sourceChoices(project, null);
  expect(groups.map((g) => g.group)).toEqual([
    'Channels of the plan, over all seats',
    'Loudspeakers in the open, at a distance',
    'Live, as it is heard',
  ]);
  const made = chosenSource(project, groups[1]!.items[0]!.value)!;
  expect(made.of).toMatchObject({ kind: 'distance', distanceM: 5, count: 1 });
  expect(chosenSource(project, 'sweeps nobody')).toBeNull();
});

it('of the plan, the mains and what comes next are likely to be meant; with the crossovers of the variant', () => {
  const [mains, next] = groupsOfPlan(project);
  const pair = likelyPair(project)!.map((value) => chosenSource(project, value)!);
  expect(pair.map((s) => s.name)).toEqual([mains!.name, next!.name]);
  expect(pair[0]!.of).toEqual({
    kind: 'channels',
    loudspeakerIds: mains!.loudspeakers.map((l) => l.id),
    from: 'models',
  });
  const [sub] = project.place.loudspeakers.filter((l) => l.role === 'subwoofer');
  const lowPass = { kind: 'Linkwitz-Riley' as const, order: 4, frequency: 90 };
  const crossed = {
    ...project,
    variants: project.variants.map((v) => ({
      ...v,
      correction: { ...v.correction, crossovers: { [sub!.id]: { highPass: null, lowPass } } },
    })),
  };
  expect(chosenSource(crossed, `models ${sub!.id}`)).toMatchObject({ lowPass, highPass: null });
});

it('a step offers itself to none, and none that rests on it to it', () => {
  const of = (stepId: string) => ({
    ...plainSetting(),
    id: stepId,
    name: stepId,
    of: { kind: 'step' as const, stepId },
  });
  const steps = [
    newStep('one', 'One', [
      chosenSource(project, 'distance reference-dunlin-6')!,
      chosenSource(project, 'distance reference-eider-10')!,
    ]),
    newStep('two', 'Two', [of('one'), chosenSource(project, 'distance reference-dunlin-6')!]),
  ];
  const offered = (id: string | null) =>
    sourceChoices({ ...project, alignSteps: steps }, id)
      .find((g) => g.group.startsWith('What was'))
      ?.items.map((i) => i.value);
  expect(offered(null)).toEqual(['step one', 'step two']);
  expect(offered('one')).toBeUndefined();
  expect(offered('two')).toEqual(['step one']);
});
