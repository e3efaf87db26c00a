import {
  designKey,
  loudspeakerName,
  variantOf,
  verifiedIds,
  type MemoryLoad,
  type Project,
  type ProjectArray,
  type VerifiedStage,
} from '@pebble-hall/core/project';
import { playedDesigns } from '../../../services/playedDesigns';
import { compareLoad, comparisonGround, grid } from '../verify/compareLoad';
import { slug, type BundleCurve } from './bundle';

/**
 * What a load is predicted to do, as curves: as found and as left at every spot, and of the variant, where it still is what was loaded,
 * target and as left over the mean of the spots.
 * @param held filters that are not stored
 */
export async function predictionsOf(
  project: Project,
  load: MemoryLoad,
  held: ProjectArray[],
): Promise<BundleCurve[]> {
  const curves: BundleCurve[] = [];
  const nameOf = (id: string) => loudspeakerName(project.place, id);
  const add = (folder: string, id: string, what: string, where: string, levelDb: Float64Array) =>
    curves.push({
      path: `${folder}/${slug(nameOf(id))}-${slug(what)}`,
      about: `${nameOf(id)}, ${where}: ${what}`,
      frequency: grid,
      levelDb,
    });
  for (const spot of project.place.spots)
    for (const stage of ['verified', 'verified with bass'] satisfies VerifiedStage[]) {
      if (verifiedIds(project, load, stage).length === 0) continue;
      const ground = comparisonGround(project, load, spot.id, stage, held);
      const alone = stage === 'verified';
      for (const { id, foundDb, predictedDb } of await compareLoad(ground)) {
        const at = `at ${spot.name}`;
        if (alone) add(slug(spot.name), id, 'as found', at, foundDb);
        add(slug(spot.name), id, alone ? 'as left' : 'as left with its bass', at, predictedDb);
      }
    }
  const variant = project.variants.find((v) => v.id === load.variantId) ?? variantOf(project);
  if (designKey(project, variant.correction) !== load.designKey) return curves;
  const { designs, sendsBass } = await playedDesigns(project, variant.correction);
  for (const { id, found, predicted, targetDb } of designs) {
    const where = 'mean of the spots, before trims';
    add('mean-of-spots', id, 'as found', where, found.averageDb);
    add('mean-of-spots', id, 'target', where, targetDb);
    const what = sendsBass.has(id) ? 'as left with its bass' : 'as left';
    add('mean-of-spots', id, what, where, predicted.averageDb);
  }
  return curves;
}
