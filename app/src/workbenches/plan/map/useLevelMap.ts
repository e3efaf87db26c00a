import type { Place, Project } from '@pebble-hall/core/project';
import { variantOf } from '@pebble-hall/core/project';
import { isEqual } from 'es-toolkit';
import { useMemo } from 'react';
import { theProcessor } from '../../../services/theProcessor';
import { useDerived } from '../../../services/useDerived';
import { makeMaps, type MadeMaps, type MapAsked } from './makeMaps';
import { linesOfMaps, type MapLines } from './mapLines';
import { useMapSettings, type MapSettings } from './mapSettings';

export interface LevelMap {
  settings: MapSettings;
  set: (next: Partial<MapSettings>) => void;
  maps: MadeMaps | null;
  lines: MapLines | null;
  problem: string | null;
  /** what is taken off each level that is shown, dB */
  zeroDb: number;
}

/** While a loudspeaker is under the hand, the last map stays until the next is there; another question is never answered by it. */
const UNDER_THE_HAND = {
  follows: (a: MapAsked, b: MapAsked) =>
    isEqual(a.settings, b.settings) && isEqual(a.reachOf, b.reachOf) && isEqual(a.correction, b.correction),
};

/** The level map of a place as it is drawn now, under the hand too. */
export function useLevelMap(project: Project, place: Place, selected: ReadonlySet<string>): LevelMap {
  const [settings, set] = useMapSettings();
  const { alignment, subs, crossovers, sections } = variantOf(project).correction;
  const asked: MapAsked | null = settings.isOn
    ? {
        place: {
          shape: place.shape,
          audience: place.audience,
          seats: place.seats,
          loudspeakers: place.loudspeakers,
          models: place.models,
          temperatureC: place.temperatureC,
          relativeHumidityPercent: place.relativeHumidityPercent,
          home: place.spots[0]!.position,
        },
        settings,
        correction: { alignment, subs, crossovers, sections },
        rate: theProcessor().profile.rate,
        reachOf: place.loudspeakers.filter((l) => selected.has(l.id)).map((l) => l.id),
      }
    : null;
  const { value: maps, problem } = useDerived(asked, makeMaps, UNDER_THE_HAND);
  const lines = useMemo(
    () =>
      maps &&
      linesOfMaps(
        maps,
        (id) => place.loudspeakers.find((l) => l.id === id)?.name ?? id,
        settings.toleranceMs,
      ),
    [maps, place.loudspeakers, settings.toleranceMs],
  );
  const zeroDb = settings.show === 're home spot' && maps && !maps.isDifference ? maps.homeDb : 0;
  return { settings, set, maps: settings.isOn ? maps : null, lines, problem, zeroDb };
}
