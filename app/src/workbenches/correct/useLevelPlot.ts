import type { ChannelDesign } from '@pebble-hall/core/correct';
import type { Correction } from '@pebble-hall/core/project';
import { logGrid } from '@pebble-hall/core/signal';
import { useMemo } from 'react';
import { readLeftAlone } from '../../parts/leftAloneWords';
import type { ChartBand, ChartMark, ChartTrace } from '../../parts/ResponseChart';
import { groupBands, groupTarget, groupTraces, type Member } from './groupCurves';
import { channelBands, channelTraces, filterTraces } from './levelCurves';
import type { Look, Shown } from './pages';
import type { DesignNote } from './readDesign';

const grid = logGrid();
const FILTER_RANGE = { lowDb: -20, highDb: 15 };
const SEEN_DB = 45;

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

/** The axis about what was found: from what lies within the spans to so many decibels below. */
export function rangeOfFound(designs: Pick<ChannelDesign, 'found' | 'span'>[]): LevelPlot['range'] {
  const tops = designs.map(({ found, span }) =>
    found.averageDb.reduce(
      (top, v, i) =>
        grid[i]! >= span.from && grid[i]! <= span.to && Number.isFinite(v) ? Math.max(top, v) : top,
      -Infinity,
    ),
  );
  const most = Math.max(...tops);
  if (!Number.isFinite(most)) return undefined;
  const highDb = Math.ceil((most + 6) / 5) * 5;
  return { lowDb: highDb - SEEN_DB, highDb };
}

/** What the plot of levels and filters shows, of a channel or of several. */
export function useLevelPlot(request: LevelPlotRequest): LevelPlot {
  const { design, group, oneTarget, look, shown, madeDb, against, spotLevels, notes, limits } = request;
  const traces = useMemo(() => {
    if (group) return groupTraces(group, look, shown);
    if (!design) return [];
    return look === 'Filter'
      ? filterTraces(design, madeDb, against)
      : channelTraces(design, shown, spotLevels, against);
  }, [group, design, look, madeDb, against, shown, spotLevels]);
  const bands = useMemo(() => {
    if (look !== 'Level') return [];
    return group ? groupBands(group, shown) : design ? channelBands(design, shown) : [];
  }, [design, group, look, shown]);
  const seen = group ? group.map((m) => m.design) : design ? [design] : [];
  // the axis stays still while a hand drags: it depends on what was found, not on what is predicted
  const key = seen.map((d) => `${d.id} ${d.found.averageDb[100]} ${d.found.averageDb[200]}`).join('|');
  const range = useMemo(
    () => (seen.length === 0 ? undefined : look === 'Filter' ? FILTER_RANGE : rangeOfFound(seen)),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the span of a drag must not move the axis
    [key, look],
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
