import { formatDb, formatHz } from '../../charts/chartMath';
import type { TableData } from '../../services/tableText';
import type { ChannelLevels } from './readLevels';

/** Range, roll-off corners and level of each channel, against the loudest of them. */
export function cornerTable(channels: ChannelLevels[]): TableData {
  const loudest = Math.max(...channels.map((c) => c.corners.levelDb));
  const hz = (f: number | null) => (f === null ? 'beyond' : formatHz(f));
  return {
    title: 'Range and level',
    columns: [
      'Channel',
      '−10 dB from',
      '−6 dB from',
      '−3 dB from',
      '−3 dB to',
      '−6 dB to',
      '−10 dB to',
      'Level',
      'Against the loudest',
    ],
    rows: channels.map(({ name, corners: { low, high, levelDb } }) => [
      name,
      hz(low[10]),
      hz(low[6]),
      hz(low[3]),
      hz(high[3]),
      hz(high[6]),
      hz(high[10]),
      formatDb(levelDb),
      formatDb(levelDb - loudest),
    ]),
  };
}
