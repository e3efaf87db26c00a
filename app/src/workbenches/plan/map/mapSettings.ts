import type { MapBand } from '@pebble-hall/core/coverage';
import type { Point } from '@pebble-hall/core/geometry';
import { useLocalStorage } from '@mantine/hooks';

/** How a level map of a project is looked at; kept in the browser, as it is no part of the place. */
export interface MapSettings {
  isOn: boolean;
  kind: MapBand['kind'];
  /** nominal, Hz; of no use for A */
  centre: number;
  how: 'coherent' | 'power';
  show: 'SPL' | 're home spot' | 're pinned place';
  signalDbfs: number;
  surface: 'audience' | 'floor' | 'upright';
  /** over the floor, where that is looked at, metres; and by how much higher for each metre from the front */
  heightM: number;
  rise: number;
  /** what an upright plane goes through: the home spot, the pinned place, or a channel by its id; and in which direction */
  through: string;
  bearingDeg: number;
  /** a place that is looked at by itself */
  pinned: { name: string; position: Point } | null;
  air: boolean;
  floorReflects: boolean;
  /** with the filters that were worked out from measurements, where there are any */
  withFilters: boolean;
  /** the channel that sounds alone; null where they sound as chosen */
  solo: string | null;
  /** channels that are silent */
  off: string[];
  compares: boolean;
  /** of two maps which is seen, or how much louder the first is */
  look: 'A' | 'B' | 'A less B';
  /** of two maps the channels of the second one */
  second: string[];
  /** by how much the second is louder and later than it is set, in the map alone: dB, ms */
  secondDb: number;
  secondMs: number;
  /** arrivals within so much count as together, ms */
  toleranceMs: number;
}

export const PLAIN: MapSettings = {
  isOn: false,
  kind: 'third',
  centre: 2000,
  how: 'coherent',
  show: 'SPL',
  signalDbfs: -20,
  surface: 'audience',
  heightM: 1.2,
  rise: 0,
  through: 'home',
  bearingDeg: 0,
  pinned: null,
  air: true,
  floorReflects: false,
  withFilters: true,
  solo: null,
  off: [],
  compares: false,
  look: 'A',
  second: [],
  secondDb: 0,
  secondMs: 0,
  toleranceMs: 5,
};

/** Nominal centres of thirds of an octave (IEC 61260-1). */
export const NOMINAL = [
  25, 31.5, 40, 50, 63, 80, 100, 125, 160, 200, 250, 315, 400, 500, 630, 800, 1000, 1250, 1600, 2000, 2500,
  3150, 4000, 5000, 6300, 8000, 10_000, 12_500, 16_000, 20_000,
] as const;

/** The exact centre of a nominal one: base 10. */
const exact = (nominal: number) => 10 ** (Math.round(10 * Math.log10(nominal)) / 10);

export const bandOf = ({ kind, centre }: Pick<MapSettings, 'kind' | 'centre'>): MapBand =>
  kind === 'A' ? { kind } : { kind, centre: kind === 'frequency' ? centre : exact(centre) };

export function useMapSettings(projectId: string): [MapSettings, (next: Partial<MapSettings>) => void] {
  const [kept, setKept] = useLocalStorage<Partial<MapSettings>>({
    key: `pebble-hall.level-map.${projectId}`,
    defaultValue: {},
    getInitialValueInEffect: false,
  });
  const settings = { ...PLAIN, ...kept };
  return [settings, (next) => setKept({ ...kept, ...next })];
}
