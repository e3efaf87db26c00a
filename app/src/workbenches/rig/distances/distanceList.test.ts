import { expect, it } from 'vitest';
import { netLoftProject } from '../../../../../demo/netLoftProject';
import { distanceProblems, pairsOf, placesOf, problemSentence, withDistance } from './distanceList';

const project = netLoftProject();
const withKnown = (list: Parameters<typeof withDistance>[0]) => ({
  ...project,
  rig: { ...project.rig, distances: list },
});
const home = project.place.spots[0]!.id;
const planOf = (a: string, b: string) => pairsOf(project).find((p) => p.a === a && p.b === b)!.planM;
const nameOf = (id: string) => placesOf(project).find((p) => p.id === id)!.name;

it('has every pair of seven loudspeakers and the home spot', () => {
  expect(pairsOf(project)).toHaveLength(28);
  expect(pairsOf(project).every((p) => p.usedM === null && p.planM > 0)).toBe(true);
});

it('uses what was set by hand before what was typed before what was heard; a pair has no direction', () => {
  let list = withDistance([], home, 'left', { heardM: 3.1 });
  list = withDistance(list, 'left', home, { typedM: 3.0 });
  expect(list).toHaveLength(1);
  const used = (l: typeof list) => pairsOf(withKnown(l)).find((p) => p.a === 'left' && p.b === home)!.usedM;
  expect(used(list)).toBe(3.0);
  expect(used(withDistance(list, 'left', home, { adjustedM: 3.05 }))).toBe(3.05);
  expect(withDistance(list, 'left', home, { typedM: null, heardM: null })).toEqual([]);
});

it('points out what was typed and heard differently, and impossible triangles; subwoofers are heard less exactly', () => {
  const typed = withDistance([], 'left', home, { typedM: 4.1, heardM: planOf('left', home) });
  const [problem] = distanceProblems(withKnown(typed));
  expect(problem).toMatchObject({ kind: 'disagree', metres: 4.1 });
  expect(problemSentence(problem!, nameOf, (m) => `${m.toFixed(2)} m`)).toMatch(
    /^Left to Home spot: typed 4\.10 m, heard \d/,
  );
  const settled = withDistance(typed, 'left', home, { adjustedM: planOf('left', home) });
  expect(distanceProblems(withKnown(settled))).toEqual([]);
  const sub = planOf('sub-1', home);
  expect(
    distanceProblems(withKnown(withDistance([], 'sub-1', home, { typedM: sub, heardM: sub + 0.4 }))),
  ).toEqual([]);
  const vague = ['left', 'sub-2'].reduce(
    (l, id) => withDistance(l, id, home, { heardM: planOf(id, home) - 0.2 }),
    withDistance([], 'left', 'sub-2', { heardM: planOf('left', 'sub-2') }),
  );
  expect(distanceProblems(withKnown(vague))).toEqual([]);
  const triangle = ['left', 'right'].reduce(
    (l, id) => withDistance(l, id, home, { typedM: planOf(id, home) }),
    [] as typeof typed,
  );
  const wrong = withKnown(withDistance(triangle, 'left', 'right', { typedM: 9 }));
  expect(distanceProblems(wrong)[0]).toMatchObject({ kind: 'triangle', metres: 9 });
});
