import { crossings, inFrame, isoLines } from '@pebble-hall/core/coverage';
import { distanceBetween, meanPoint, type Corner, type Point } from '@pebble-hall/core/geometry';
import type { MadeMaps } from './makeMaps';
import type { MapChannel } from './mapChannels';

/** Lines over a map, and what they mean. */
export interface MapLines {
  /** where a channel has fallen by 6 dB from its loudest */
  reach: { id: string; name: string; lines: Corner[][] }[];
  /** where two maps are equally loud, where they arrive together, and the edges within which they nearly do */
  equal: Corner[][];
  together: Corner[][];
  within: Corner[][];
  /** where both hold: metres to the centre of each */
  places: { at: Corner; firstM: number; secondM: number }[];
}

/** Points of a map at which two are equally loud and arrive together are told up to this many. */
const MOST_PLACES = 6;

/** The lines of maps. @param nameOf a channel by its id */
export function linesOfMaps(maps: MadeMaps, nameOf: (id: string) => string, toleranceMs: number): MapLines {
  const { grid, laterS, reach } = maps;
  const { first: levels, second } = maps.even;
  const equal = second
    ? isoLines(
        grid,
        levels.map((v, i) => v - second[i]!),
        0,
      )
    : [];
  const together = laterS ? isoLines(grid, laterS, 0) : [];
  const within = laterS ? [-1, 1].flatMap((side) => isoLines(grid, laterS, (side * toleranceMs) / 1000)) : [];
  const height = (at: Corner): number => {
    const c = Math.max(0, Math.min(grid.columns - 1, Math.round((at.x - grid.x0) / grid.step)));
    const r = Math.max(0, Math.min(grid.rows - 1, Math.round((at.y - grid.y0) / grid.step)));
    return grid.points[3 * (r * grid.columns + c) + 2]!;
  };
  const centres = [maps.first, maps.others].map(centreOf);
  const places = crossings(equal, together)
    .slice(0, MOST_PLACES)
    .map((at) => {
      // seen from above the surface has its own heights
      const p = grid.frame.along.z === 0 ? { ...at, z: height(at) } : inFrame(grid.frame, at);
      const [firstM, secondM] = centres.map((c) => (c ? distanceBetween(c, p) : NaN)) as [number, number];
      return { at, firstM, secondM };
    });
  return {
    reach: reach.map(({ id, levels: own, edgeDb }) => ({
      id,
      name: nameOf(id),
      lines: isoLines(grid, own, edgeDb),
    })),
    equal,
    together,
    within,
    places,
  };
}

/** The middle of all boxes of some channels. */
function centreOf(channels: readonly MapChannel[]): Point | null {
  const boxes = channels.flatMap((c) => c.boxes.map((b) => b.position));
  return boxes.length === 0 ? null : meanPoint(boxes);
}
