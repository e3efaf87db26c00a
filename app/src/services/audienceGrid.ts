import { gridOver, type LevelGrid } from '@pebble-hall/core/coverage';
import { distanceToSides, isWithin, type Corner } from '@pebble-hall/core/geometry';
import { earHeightAt, floorAt } from '@pebble-hall/core/place';
import type { Place } from '@pebble-hall/core/project';

/** Ears of who stands where no audience is drawn, metres over the floor. */
const STANDING_M = 1.6;

/** Points at ear height over the audience; of an audience that is not drawn yet over the whole floor. @throws RangeError for no area */
export function audienceGrid(
  { shape, audience }: Pick<Place, 'shape' | 'audience'>,
  most: number,
): LevelGrid {
  if (audience.length === 0) return gridOver([shape.outline], (at) => floorAt(shape, at) + STANDING_M, most);
  const heightAt = (at: Corner) => {
    const far = (a: (typeof audience)[number]) =>
      isWithin(a.outline, at) ? 0 : distanceToSides(a.outline, at);
    const area = audience.reduce((best, a) => (far(a) < far(best) ? a : best));
    return earHeightAt(area, shape, at);
  };
  return gridOver(
    audience.map((a) => a.outline),
    heightAt,
    most,
  );
}
