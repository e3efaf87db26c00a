import type { ChannelDesign } from '@pebble-hall/core/correct';
import { channelRequests, designGround, type DesignGround } from '@pebble-hall/core/jobs';
import type { Correction, Project } from '@pebble-hall/core/project';
import { isAbort } from '../../../ports/abort';
import type { Job } from '../../../services/derivation';
import { designAll } from '../../../services/exactFilters';
import { useDerived } from '../../../services/useDerived';

/** What a variant is worth, over all its channels. */
export interface VariantFigures {
  /** RMS distance to the target, mean over the channels, dB */
  distance: { before: number; after: number };
  /** at spots that took no part; null without any */
  leftOutDb: number | null;
  /** largest boost of any channel, dB */
  boostDb: number;
  /** how many places were left alone, over all channels */
  leftAlone: number;
}

/** Figures of all designs of a variant; null without any. */
export function variantFigures(designs: ChannelDesign[]): VariantFigures | null {
  if (designs.length === 0) return null;
  const mean = (values: number[]) => values.reduce((a, b) => a + b, 0) / values.length;
  const judged = designs.flatMap((d) => (d.distanceLeftOut ? [d.distanceLeftOut.after] : []));
  return {
    distance: {
      before: mean(designs.map((d) => d.distance.before)),
      after: mean(designs.map((d) => d.distance.after)),
    },
    leftOutDb: judged.length > 0 ? mean(judged) : null,
    boostDb: Math.max(0, ...designs.flatMap((d) => [...d.gainDb])),
    leftAlone: designs.reduce((n, d) => n + d.leftAlone.length, 0),
  };
}

interface Asked {
  ground: DesignGround;
  corrections: Correction[];
}

/** One after the other; what cannot be worked out has no figures, and the page above says why. */
async function read({ ground, corrections }: Asked, { signal }: Job): Promise<(VariantFigures | null)[]> {
  const figures: (VariantFigures | null)[] = [];
  for (const correction of corrections) {
    const designs = await designAll(channelRequests(ground, correction), { signal }).catch(
      (error: unknown) => {
        if (isAbort(error)) throw error;
        return null;
      },
    );
    figures.push(designs && variantFigures([...designs.values()]));
  }
  return figures;
}

/** Figures of every variant, by its id. */
export function useVariantFigures(project: Project): Map<string, VariantFigures> {
  const { variants } = project;
  const asked = { ground: designGround(project), corrections: variants.map((v) => v.correction) };
  const { value } = useDerived(asked, read);
  return new Map(
    variants.flatMap((v, i) => {
      const figures = value?.[i];
      return figures ? [[v.id, figures] as const] : [];
    }),
  );
}
