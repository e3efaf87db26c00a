import type { MapSettings } from './mapSettings';

/** A level of a map with what it is against. */
export const levelWords = (db: number, show: MapSettings['show'], isDifference: boolean): string =>
  `${db.toFixed(1)} dB${isDifference ? ' more from A' : show === 'SPL' ? ' SPL' : ' re the home spot'}`;
