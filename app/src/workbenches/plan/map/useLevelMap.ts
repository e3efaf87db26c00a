import { useHotkeys } from '@mantine/hooks';
import type { GridFrame } from '@pebble-hall/core/coverage';
import type { Place, Project } from '@pebble-hall/core/project';
import { variantOf } from '@pebble-hall/core/project';
import { isEqual } from 'es-toolkit';
import { useMemo } from 'react';
import type { View } from '../../../drawing';
import { theProcessor } from '../../../services/theProcessor';
import { useDerived } from '../../../services/useDerived';
import { makeMaps, type MadeMaps, type MapAsked } from './makeMaps';
import { linesOfMaps, type MapLines } from './mapLines';
import { useMapSettings, type MapSettings } from './mapSettings';
import { makeResponse, type PinnedResponse, type ResponseAsked } from './pinnedResponse';
import { useFittedFilters, type FittedFilters } from './useFittedFilters';

export interface LevelMap {
  settings: MapSettings;
  set: (next: Partial<MapSettings>) => void;
  maps: MadeMaps | null;
  lines: MapLines | null;
  problem: string | null;
  /** what is taken off each level that is shown, dB */
  zeroDb: number;
  /** whether what is shown is a first look, and the exact map is on its way */
  isRough: boolean;
  /** what is heard at the pinned place; null without one */
  response: PinnedResponse | null;
  fitted: FittedFilters;
  /** lets the next channel sound alone; after the last one all sound again */
  soloNext: (step: 1 | -1) => void;
}

/** While a loudspeaker is under the hand, the last map stays until the next is there; another question is never answered by it. */
const alike = (a: Omit<MapAsked, 'reachOf'>, b: Omit<MapAsked, 'reachOf'>) =>
  isEqual(a.settings, b.settings) && isEqual(a.correction, b.correction) && a.filters === b.filters;
const UNDER_THE_HAND = {
  follows: (a: MapAsked, b: MapAsked) => alike(a, b) && isEqual(a.reachOf, b.reachOf),
};
const ALSO = { follows: (a: ResponseAsked, b: ResponseAsked) => alike(a, b) && isEqual(a.point, b.point) };
/** The exact map of thirty thirds is made when the hand rests. */
const AT_REST = { restMs: 60 };

/** The view in which the plane of a map is seen: that which it lies across the least. */
export const viewOfFrame = ({ across, along }: GridFrame): View =>
  along.z === 0 ? 'above' : Math.abs(across.x) >= Math.abs(across.y) ? 'side' : 'front';

/** The level map of a place as it is drawn now, under the hand too. */
export function useLevelMap(project: Project, place: Place, selected: ReadonlySet<string>): LevelMap {
  const [settings, set] = useMapSettings(project.id);
  const fitted = useFittedFilters(project, settings.isOn && settings.withFilters);
  const { alignment, subs, crossovers, allPasses, sections } = variantOf(project).correction;
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
        correction: { alignment, subs, crossovers, allPasses, sections },
        filters: settings.withFilters ? fitted.filters : null,
        rate: theProcessor().profile.rate,
        reachOf: place.loudspeakers.filter((l) => selected.has(l.id)).map((l) => l.id),
      }
    : null;
  // all thirds at once take their time: a first look goes with the hand
  const isLong = settings.kind === 'A';
  const rough = useDerived(asked && (isLong ? { ...asked, perThird: 1 } : asked), makeMaps, UNDER_THE_HAND);
  const exact = useDerived(isLong ? asked : null, makeMaps, AT_REST);
  const maps = exact.value ?? rough.value;
  const { reachOf: _reach, ...forResponse } = asked ?? {};
  const response = useDerived(
    asked && settings.pinned ? ({ ...forResponse, point: settings.pinned.position } as ResponseAsked) : null,
    makeResponse,
    ALSO,
  );
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
  const soloNext = (step: 1 | -1) => {
    const order = [null, ...place.loudspeakers.filter((l) => l.fitted).map((l) => l.id)];
    const now = Math.max(0, order.indexOf(settings.solo));
    set({ solo: order[(now + step + order.length) % order.length]! });
  };
  useHotkeys(
    settings.isOn
      ? [
          ['n', () => soloNext(1)],
          ['shift+n', () => soloNext(-1)],
        ]
      : [],
  );
  return {
    settings,
    set,
    maps: settings.isOn ? maps : null,
    lines,
    problem: rough.problem ?? exact.problem ?? response.problem,
    zeroDb: zeroOf(settings, maps),
    isRough: isLong && exact.value === null,
    response: response.value,
    fitted,
    soloNext,
  };
}

function zeroOf({ show }: MapSettings, maps: MadeMaps | null): number {
  if (!maps || maps.isDifference || show === 'SPL') return 0;
  return show === 're pinned place' ? (maps.pinnedDb ?? maps.homeDb) : maps.homeDb;
}
