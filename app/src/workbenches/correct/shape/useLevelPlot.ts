import type { ChannelDesign } from '@pebble-hall/core/correct';
import type { Correction } from '@pebble-hall/core/project';
import { logGrid } from '@pebble-hall/core/signal';
import { useMemo } from 'react';
import { useAlike } from '../../../services/useDerived';
import { readLeftAlone } from '../../../words/leftAlone';
import type { ChartBand, ChartMark, ChartTrace } from '../../../charts/ResponseChart';
import { groupBands, groupTarget, groupTraces, type Member } from './groupCurves';
import { channelBands, channelTraces, filterTraces } from './levelCurves';
import type { Look, Shown } from '../pages';
import type { DesignNote } from './readDesign';

const grid = logGrid();
const FILTER_RANGE = { lowDb: -20, highDb: 15 };
const SEEN_DB = 45;
/** Beyond it there is little but noise, which is no level to make room for. */
const HEARD = { from: 30, to: 16000 };

interface LevelPlotRequest {
  /** null until it is there */
  design: ChannelDesign | null;
  /** several channels in its place */
  group: Member[] | null;
  /** whether the group aims at one shape */
  oneTarget: boolean;
  look: Look;
  shown: Shown;
  /** level of the filter as made */
  madeDb: Float64Array | null;
  /** whether what is predicted counts the bass that the channel sends; null where it sends none */
  bass: 'with its bass' | 'without its bass' | null;
  against: { name: string; design: ChannelDesign } | null;
  spotLevels: Float64Array[];
  notes: DesignNote[];
  limits: Pick<Correction, 'maxBoostDb' | 'maxCutDb'>;
}

export interface LevelPlot {
  traces: ChartTrace[];
  bands: ChartBand[];
  target: Float64Array | null;
  range: { lowDb: number; highDb: number } | undefined;
  marks: ChartMark[];
  /** what was left alone, with the reason */
  stretches: { fromHz: number; toHz: number; text: string }[];
}

/** The axis about what was found: from above its loudest to so many decibels below. @param founds averages as found, dB */
export function rangeOfFound(founds: Float64Array[]): LevelPlot['range'] {
  const most = Math.max(
    ...founds.map((db) =>
      db.reduce((top, v, i) => {
        const isHeard = grid[i]! >= HEARD.from && grid[i]! <= HEARD.to && Number.isFinite(v);
        return isHeard ? Math.max(top, v) : top;
      }, -Infinity),
    ),
  );
  if (!Number.isFinite(most)) return undefined;
  const highDb = Math.ceil((most + 6) / 5) * 5;
  return { lowDb: highDb - SEEN_DB, highDb };
}

/** What the plot of levels and filters shows, of a channel or of several. */
export function useLevelPlot(request: LevelPlotRequest): LevelPlot {
  const { design, group, oneTarget, look, shown, madeDb, bass, against, spotLevels, notes, limits } = request;
  const traces = useMemo(() => {
    if (group) return groupTraces(group, look, shown);
    if (!design) return [];
    return look === 'Filter'
      ? filterTraces(design, madeDb, against)
      : channelTraces(design, shown, spotLevels, against, bass);
  }, [group, design, look, madeDb, bass, against, shown, spotLevels]);
  const bands = useMemo(() => {
    if (look !== 'Level') return [];
    return group ? groupBands(group, shown) : design ? channelBands(design, shown) : [];
  }, [design, group, look, shown]);
  // the axis stays still while a hand drags: it depends on what was found, not on what is predicted
  const founds = useAlike(
    (group ? group.map((m) => m.design) : design ? [design] : []).map((d) => d.found.averageDb),
  );
  const range = useMemo(
    () => (founds.length === 0 ? undefined : look === 'Filter' ? FILTER_RANGE : rangeOfFound(founds)),
    [founds, look],
  );
  const single = !group && look === 'Level';
  const target = useMemo(
    () =>
      look !== 'Level' ? null : group ? (oneTarget ? groupTarget(group) : null) : (design?.targetDb ?? null),
    [look, group, oneTarget, design],
  );
  return {
    traces,
    bands,
    target,
    range,
    marks: single
      ? notes.flatMap((n, i) => (n.at ? [{ number: i + 1, ...n.at, attention: n.attention }] : []))
      : [],
    stretches: single
      ? (design?.leftAlone ?? []).map((l) => {
          const { text, small } = readLeftAlone(l, limits.maxBoostDb, limits.maxCutDb);
          return { fromHz: l.from, toHz: l.to, text: `${text} ${small}` };
        })
      : [],
  };
}
