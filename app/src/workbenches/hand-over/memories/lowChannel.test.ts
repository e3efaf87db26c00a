import { netLoftProject } from '../../../../../demo/netLoftProject';
import { plainOutput } from '@pebble-hall/core/processing';
import type { MemoryLoad } from '@pebble-hall/core/project';
import { expect, it } from 'vitest';
import { lowInputs } from './lowChannel';

it('the low-frequency channel is what a load feeds to the subwoofers without a loudspeaker of its own', () => {
  const project = netLoftProject();
  const bassFeed = { gainDb: 0, lowPass: null };
  const feeding = (...inputs: number[]) =>
    lowInputs(
      {
        outputs: Array.from({ length: 12 }, (_, i) => ({
          ...plainOutput(),
          bassFeed: inputs.includes(i + 1) ? bassFeed : null,
        })),
      } as MemoryLoad,
      project,
    );
  expect(feeding()).toEqual([]);
  expect(feeding(1, 3)).toEqual([]); // loudspeakers that send their own bass
  expect(feeding(1, 8)).toEqual([8]);
  expect(lowInputs({ outputs: null } as MemoryLoad, project)).toEqual([]);
});
