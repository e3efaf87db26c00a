import type { MapBand } from '@pebble-hall/core/coverage';
import { useLocalStorage } from '@mantine/hooks';

/** How a level map is looked at; the same for all places of a browser. */
export interface MapSettings {
  isOn: boolean;
  kind: MapBand['kind'];
  /** nominal, Hz; of no use for A */
  centre: number;
  how: 'coherent' | 'power';
  show: 'SPL' | 're home spot';
  signalDbfs: number;
  surface: 'audience' | 'floor';
  /** over the floor, where that is looked at, metres */
  heightM: number;
  air: boolean;
  floorReflects: boolean;
  /** channels that are silent */
  off: string[];
  compares: boolean;
  /** of two maps which is seen, or how much louder the first is */
  look: 'A' | 'B' | 'A less B';
  /** of two maps the channels of the second one */
  second: string[];
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
  air: true,
  floorReflects: false,
  off: [],
  compares: false,
  look: 'A',
  second: [],
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

export function useMapSettings(): [MapSettings, (next: Partial<MapSettings>) => void] {
  const [kept, setKept] = useLocalStorage<Partial<MapSettings>>({
    key: 'pebble-hall.level-map',
    defaultValue: {},
    getInitialValueInEffect: false,
  });
  const settings = { ...PLAIN, ...kept };
  return [settings, (next) => setKept({ ...kept, ...next })];
}
