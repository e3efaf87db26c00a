import { newProject, newStep, plainSetting, USUAL_SIZE } from '@pebble-hall/core/project';
import { expect, it } from 'vitest';
import { chosenSource, likelyPair, sourceChoices } from './sourceChoices';

const project = newProject('p', {
  name: 'P',
  kind: 'listening room',
  size: USUAL_SIZE['listening room'],
  layoutId: '5.1',
  rig: 'simulated',
});

it('without sweeps and traces there are loudspeakers at a distance, and nobody guesses a pair', () => {
  const groups = sourceChoices(project, null);
  expect(groups.map((g) => g.group)).toEqual(['Loudspeakers in the open, at a distance']);
  expect(likelyPair(project)).toBeNull();
  const made = chosenSource(project, groups[0]!.items[0]!.value)!;
  expect(made.of).toMatchObject({ kind: 'distance', distanceM: 5, count: 1 });
  expect(chosenSource(project, 'channel nobody')).toBeNull();
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
