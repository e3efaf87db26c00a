import { signedDb } from '../../../charts/chartMath';
import type { TableData } from '../../../services/tableText';
import type { SpotVerdict } from './spotVerdicts';
import type { Comparison } from './compareLoad';

const hz = (f: number) => f.toFixed(1);
const number = (db: number) => signedDb(db, 2);

/** What was measured again against its prediction, channel by channel, to take along. */
export const missTable = (title: string, list: Comparison[], nameOf: (id: string) => string): TableData => ({
  title,
  columns: [
    'Channel',
    'Span from (Hz)',
    'Span to (Hz)',
    'Judged (octaves)',
    'RMS (dB)',
    'Most (dB)',
    'at (Hz)',
    'Noise explains (dB)',
    'Verdict',
  ],
  rows: list.map(({ id, span, difference: d, reasons }) => [
    nameOf(id),
    hz(span.from),
    hz(span.to),
    ...(d
      ? [
          `${(d.octaves - d.unjudged).toFixed(1)} of ${d.octaves.toFixed(1)}`,
          d.rmsDb.toFixed(2),
          number(d.worstDb),
          hz(d.worstAt),
          d.noiseDb.toFixed(2),
          d.agrees ? 'as predicted' : reasons.join('; '),
        ]
      : ['', '', '', '', '', 'not measured again']),
  ]),
});

/** The same for every spot. */
export const spotTable = (title: string, list: SpotVerdict[], nameOf: (id: string) => string): TableData => ({
  title,
  columns: ['Spot', 'Channels', 'Most (dB)', 'Channel', 'at (Hz)', 'Verdict'],
  rows: list.map((s) => [
    s.name,
    String(s.measured),
    number(s.worst.db),
    nameOf(s.worst.id),
    hz(s.worst.at),
    s.agrees ? 'as predicted' : s.unjudged > 0 ? `${s.unjudged} not judged` : 'look again',
  ]),
});
