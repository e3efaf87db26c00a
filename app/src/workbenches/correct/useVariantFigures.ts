import type { ChannelDesign } from '@pebble-hall/core/correct';
import type { Project } from '@pebble-hall/core/project';
import { useEffect, useState } from 'react';
import { channelRequests, designAll, provideDesigns } from '../../parts/designs';
import { designKey } from '../../parts/progress';

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

/** Figures of every variant, by its id; worked out one after the other, and again only for those that changed. */
export function useVariantFigures(project: Project): Map<string, VariantFigures> {
  const [known, setKnown] = useState<Map<string, VariantFigures | null>>(new Map());
  const keys = project.variants.map((v) => designKey(project, v.correction));
  useEffect(() => {
    let current = true;
    const work = async () => {
      for (const [i, { correction }] of project.variants.entries()) {
        if (known.has(keys[i]!)) continue;
        await provideDesigns(project, correction);
        const designs = await designAll(channelRequests(project, correction));
        if (!current) return;
        setKnown((before) => new Map([...before, [keys[i]!, variantFigures([...designs.values()])]]));
      }
    };
    // what cannot be worked out has no figures; the page above says why
    work().catch(() => {});
    return () => {
      current = false;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the keys say all that it rests on
  }, [keys.join('|')]);
  return new Map(
    project.variants.flatMap((v, i) => {
      const figures = known.get(keys[i]!);
      return figures ? [[v.id, figures] as const] : [];
    }),
  );
}
