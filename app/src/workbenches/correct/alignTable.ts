import type { Alignment } from '@pebble-hall/core/project';
import { formatDb } from '../../parts/chartMath';
import type { TableData } from '../../parts/tableText';
import type { HomeReading } from './useAtHome';

const PLAIN: Alignment = { trimDb: 0, delayMs: 0, inverted: false };
const number = (db: number) => formatDb(db).replace(' dB', '');

/** Levels and delays as they are read at the home spot, suggested and set, to take along. `speed` of sound in m/s. */
export const alignTable = (
  { channels, suggested }: Pick<HomeReading, 'channels' | 'suggested'>,
  alignment: Record<string, Alignment>,
  speed: number,
  nameOf: (id: string) => string,
): TableData => ({
  title: 'Levels and delays',
  columns: [
    'Channel',
    'Level against target (dB)',
    'Arrives (ms)',
    'Suggested trim (dB)',
    'Suggested delay (ms)',
    'Trim (dB)',
    'Delay (ms)',
    'as a way (m)',
    'Polarity',
  ],
  rows: channels.map((c, i) => {
    const [s, now] = [suggested[i]!, alignment[c.id] ?? PLAIN];
    return [
      nameOf(c.id),
      number(c.levelDb),
      c.arrivalS === null ? '' : (1000 * (c.arrivalS + c.latencyS)).toFixed(2),
      number(s.trimDb),
      (1000 * s.delayS).toFixed(2),
      number(now.trimDb),
      now.delayMs.toFixed(2),
      ((now.delayMs / 1000) * speed).toFixed(2),
      now.inverted ? 'reversed' : 'normal',
    ];
  }),
});
