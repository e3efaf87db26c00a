import { netLoftProject } from '../../../../../demo/netLoftProject';
import { describe, expect, it } from 'vitest';
import { othersOf } from './arrivals';

const project = netLoftProject();
const arrived = (id: string, foundMs: number, laterMs: number | null) => ({
  id,
  foundS: foundMs / 1000,
  laterS: laterMs === null ? null : laterMs / 1000,
});

describe('what the other channels tell', () => {
  it('two that have changed places arrive like each other, the rest as before', () => {
    const all = [
      arrived('left', 9.1, 0.01),
      arrived('right', 9.9, -0.02),
      arrived('centre', 10.6, -2.6),
      arrived('surround-right', 8, 2.6),
      arrived('sub-1', 14.6, 1),
    ];
    expect(othersOf(project, all, all[2]!)).toEqual({
      laterS: -0.0026,
      othersArrive: true,
      arrivesLike: 'Surround right',
    });
    expect(othersOf(project, all, all[3]!)).toMatchObject({ othersArrive: true, arrivesLike: 'Centre' });
  });

  it('a microphone that moved is heard on all', () => {
    const all = [arrived('left', 9, 0.5), arrived('right', 9.3, -0.4), arrived('centre', 10, 0.3)];
    expect(othersOf(project, all, all[0]!).othersArrive).toBe(false);
  });

  it('a channel alone, and one beside subwoofers, has nothing to be held against', () => {
    const all = [arrived('left', 9, 0.5), arrived('sub-1', 12, 0), arrived('right', 9.2, null)];
    expect(othersOf(project, all, all[0]!)).toEqual({
      laterS: 0.0005,
      othersArrive: null,
      arrivesLike: null,
    });
  });
});
