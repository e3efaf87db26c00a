import { expect, it } from 'vitest';
import {
  familiesOf,
  plainLoudspeaker,
  proposeFamilies,
  withMember,
  type Loudspeaker,
  type Project,
} from './index.js';

const loudspeaker = (id: string, model: string): Loudspeaker =>
  plainLoudspeaker({
    id,
    name: id,
    model,
    role: 'full range',
    output: 1,
    position: { x: 0, y: 0, z: 0 },
  });
const all = [
  loudspeaker('left', 'Dunlin 6'),
  loudspeaker('sub', 'Eider 10'),
  loudspeaker('right', 'Dunlin 6'),
];
const project = (families: Project['families']) =>
  ({ place: { loudspeakers: all }, families }) as unknown as Project;
const members = (list: ReturnType<typeof familiesOf>) => list.map((f) => f.loudspeakerIds);

it('proposes one family for every model', () => {
  expect(members(proposeFamilies(all))).toEqual([['left', 'right'], ['sub']]);
});

it('moves a member, and lets an empty family go', () => {
  const moved = withMember(proposeFamilies(all), all[1]!, 'family-1', 'x');
  expect(members(moved)).toEqual([['left', 'right', 'sub']]);
  const alone = withMember(moved, all[0]!, null, 'new');
  expect(alone.map((f) => [f.id, f.loudspeakerIds])).toEqual([
    ['family-1', ['right', 'sub']],
    ['new', ['left']],
  ]);
});

it('holds what was arranged, without loudspeakers that are gone, and gives strays a family of their own', () => {
  const arranged = [{ id: 'a', name: 'Pair', loudspeakerIds: ['left', 'gone'] }];
  expect(members(familiesOf(project(arranged)))).toEqual([['left'], ['sub'], ['right']]);
  expect(members(familiesOf(project(null)))).toEqual([['left', 'right'], ['sub']]);
});
