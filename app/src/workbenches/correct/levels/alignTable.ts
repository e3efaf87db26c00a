import type { Alignment } from '@pebble-hall/core/project';
import { signedDb } from '../../../charts/chartMath';
import type { TableData } from '../../../services/tableText';
import type { HomeReading } from './useAtHome';

/** A channel that is left as the processor had it. */
export const PLAIN: Alignment = { trimDb: 0, delayMs: 0, inverted: false };

/** Levels and delays as they are read at the home spot, suggested and set, to take along. `speed` of sound in m/s. */
export const alignTable = (
  channels: HomeReading['channels'],
  suggested: Record<string, Alignment>,
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
    'as distance (m)',
    'Polarity',
  ],
  rows: channels.map((c) => {
    const [s, now] = [suggested[c.id] ?? PLAIN, alignment[c.id] ?? PLAIN];
    return [
      nameOf(c.id),
      signedDb(c.levelDb),
      c.arrivalS === null ? '' : (1000 * (c.arrivalS + c.latencyS)).toFixed(2),
      signedDb(s.trimDb),
      s.delayMs.toFixed(2),
      signedDb(now.trimDb),
      now.delayMs.toFixed(2),
      ((now.delayMs / 1000) * speed).toFixed(2),
      now.inverted ? 'inverted' : 'normal',
    ];
  }),
});
