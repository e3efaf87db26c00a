import type { MapSettings } from './mapSettings';

/** A level of a map with what it is against. */
export function levelWords(
  db: number,
  { show, pinned }: Pick<MapSettings, 'show' | 'pinned'>,
  isDifference: boolean,
): string {
  const against = show === 're pinned place' && pinned ? ` re ${pinned.name}` : ' re the home spot';
  return `${db.toFixed(1)} dB${isDifference ? ' more from A' : show === 'SPL' ? ' SPL' : against}`;
}
