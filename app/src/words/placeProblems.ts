import type { Place, PlaceProblem } from '@pebble-hall/core/project';
import { listed } from './listed';

/** A problem of a place as a sentence, with what to do. */
export function placeProblemWords(problem: PlaceProblem, place: Place, processor: string): string {
  const nameOf = (id: string) =>
    [...place.loudspeakers, ...place.seats, ...place.spots, ...place.audience, ...place.fixtures].find(
      (t) => t.id === id,
    )?.name ?? id;
  const names = (ids: readonly string[]) => listed(ids.map(nameOf));
  switch (problem.kind) {
    case 'walls cross':
      return `Walls cross each other at corner ${listed(problem.corners.map((c) => String(c + 1)))}. Drag the corners until the outline goes round once.`;
    case 'no volume':
      return 'The place has no volume. Give it a length, a width and a height.';
    case 'ceiling below floor':
      return 'Somewhere the ceiling lies below the floor. Raise the walls, or flatten the floor.';
    case 'outside': {
      const what = { seat: 'seats', spot: 'spots', loudspeaker: 'loudspeakers', area: 'areas' }[problem.what];
      const more = problem.count > problem.ids.length ? ` (${problem.count} ${what} in all)` : '';
      return `${names(problem.ids)}${more} ${problem.count === 1 ? 'lies' : 'lie'} outside the walls, the floor or the ceiling. Move ${problem.count === 1 ? 'it' : 'them'} in, or make the place larger.`;
    }
    case 'in the wall':
      return `${names(problem.ids)} ${problem.ids.length === 1 ? 'stands' : 'stand'} in a wall. Move ${problem.ids.length === 1 ? 'it' : 'them'} out, or say that ${problem.ids.length === 1 ? 'it is' : 'they are'} built in.`;
    case 'same place':
      return `${names(problem.ids)} are in the same place. Move one of them.`;
    case 'output shared':
      return `${names(problem.ids)} are on output ${problem.output} together: nothing can be told of either. Give each an output, or make them one group.`;
    case 'no such output':
      return `${names(problem.ids)} ${problem.ids.length === 1 ? 'is' : 'are'} on an output that ${processor} does not have: it has ${problem.outputs}.`;
    case 'too many seats':
      return `${names(problem.ids)} would have more than 5,000 seats. Set rows and seats further apart.`;
  }
}

/** Ids of all things that problems are about, to mark them. */
export const markedBy = (problems: readonly PlaceProblem[]): Set<string> =>
  new Set(problems.flatMap((p) => ('ids' in p ? p.ids : [])));
