import { NativeSelect, Switch } from '@mantine/core';
import { lossDb, type NoPair, type PairReading } from '@pebble-hall/core/alignment';
import type { AlignSource, AlignStep } from '@pebble-hall/core/project';
import { LIBRARY_GRID, type LibraryCurve } from '@pebble-hall/core/traces';
import { useCallback, useMemo, useState, type ReactNode } from 'react';
import { formatHz, levelRange } from '../../charts/chartMath';
import type { LiveCurve } from '../../charts/drawLive';
import { LivePlot } from '../../charts/LivePlot';
import { WRAPS_DEG } from '../../charts/overFrequency';
import type { AlignedPoint } from '../../services/alignSources';
import { lateWords } from '../../words/alignWords';
import { alignCurves } from './alignCurves';
import type { readAt } from './useAligned';

interface Props {
  step: AlignStep;
  point: AlignedPoint;
  moved: AlignSource;
  read: ReturnType<typeof readAt>;
  targetDb: Float64Array | null;
  /** all of them together, as measured; null for none */
  measured: LibraryCurve | null;
  /** what the moved one is read against, by name */
  against: string;
  points: readonly AlignedPoint[];
  onPoint: (index: number) => void;
  /** while the hand moves the phase: another delay */
  onDelay: (delayS: number) => void;
  onSettle: () => void;
  tools: ReactNode;
}

const never = () => () => {};
const TICKS = [-180, -120, -60, 0, 60, 120, 180];
/** What a phase costs two that are equally loud. */
const COSTS = [60, 120].map((at) => ({ at, text: `${lossDb(at).toFixed(1)} dB lost` }));
/** As low as the line that it stands on. */
export const LOW = { input: { height: 24, minHeight: 24, paddingBlock: 0, lineHeight: '22px' } };
const JUDGED = (reading: PairReading | NoPair): reading is PairReading => 'band' in reading;

/** Levels against the target with their sum, the phase of each, and how far they are apart: one over the other, over the same band. */
export function AlignPlots(props: Props) {
  const { step, point, moved, read, targetDb, measured } = props;
  const { others, reading } = read;
  const [band, setBand] = useState({ fromHz: 20, toHz: 20_000 });
  const [cursor, setCursor] = useState<number | null>(null);
  const [isUnwrapped, setUnwrapped] = useState(false);
  const curves = useMemo(
    () => alignCurves(step, point, moved.id, others, reading, { targetDb, measured, isUnwrapped }),
    [step, point, moved.id, others, reading, targetDb, measured, isUnwrapped],
  );
  const levels = useCallback(() => curves.levels, [curves]);
  const phases = useCallback(() => curves.phases, [curves]);
  const apart = useCallback(() => curves.apart, [curves]);
  const marked = JUDGED(reading) ? reading.band : null;
  const range = useMemo(
    () =>
      levelRange(
        LIBRARY_GRID,
        curves.levels.filter((c) => !c.upTo).map((c) => c.values),
        band,
        48,
      ),
    [curves, band],
  );
  const shared = {
    frequency: LIBRARY_GRID,
    subscribe: never,
    band,
    onBand: setBand,
    marked,
    cursor,
    onCursor: setCursor,
  };
  const handle = useMemo(() => handleOf(reading, curves.apartDeg, moved), [reading, curves, moved]);
  const pointedDeg = cursor === null ? NaN : curves.apartDeg[cursor]!;
  const pointed =
    cursor !== null && JUDGED(reading) && reading.weight[cursor]! > 0
      ? `at ${formatHz(LIBRARY_GRID[cursor]!)} ${moved.name} is ${lateWords(pointedDeg, LIBRARY_GRID[cursor]!)} (${Math.round(pointedDeg)}°): ${(-20 * Math.log10(reading.efficiency[cursor]!)).toFixed(1)} dB lost`.replaceAll(
          '-',
          '\u2212',
        )
      : cursor !== null
        ? `at ${formatHz(LIBRARY_GRID[cursor]!)} they do not meet: nothing is judged`
        : `${moved.name} against ${props.against}, judged where both are within 10 dB; drag it, or use the arrow keys`;
  return (
    <div
      className="plot"
      style={{
        display: 'grid',
        gridTemplateColumns: 'minmax(0, 1fr)',
        gridTemplateRows: 'minmax(0, 1.45fr) minmax(0, 0.85fr) minmax(0, 1.15fr)',
      }}
    >
      <LivePlot
        {...shared}
        label="Levels and their sum"
        unit="dB"
        caption={`dashed: the sum as predicted${measured ? ', thin: as measured' : ''}; dotted: in phase, by power`}
        range={range}
        curves={levels}
        tools={
          <>
            {props.points.length > 1 ? (
              <NativeSelect
                size="xs"
                aria-label="Where"
                w={140}
                styles={LOW}
                data={props.points.map((p, i) => ({ value: String(i), label: p.name }))}
                value={String(props.points.indexOf(point))}
                onChange={(e) => props.onPoint(Number(e.currentTarget.value))}
              />
            ) : null}
            {props.tools}
          </>
        }
      />
      <LivePlot
        {...shared}
        label="Phase of each source"
        unit="deg"
        caption="phase of each"
        curves={phases}
        tools={
          <Switch
            size="xs"
            label="unwrapped"
            checked={isUnwrapped}
            onChange={(e) => setUnwrapped(e.currentTarget.checked)}
          />
        }
        {...(isUnwrapped
          ? { range: unwrappedRange(curves.phases, marked) }
          : { range: { lowDb: -180, highDb: 180 }, ticks: [-180, 0, 180], jump: WRAPS_DEG })}
      />
      <LivePlot
        {...shared}
        label="Phase between the sources"
        unit="deg"
        caption={pointed}
        range={{ lowDb: -180, highDb: 180 }}
        ticks={TICKS}
        meanings={COSTS}
        curves={apart}
        jump={WRAPS_DEG}
        {...(handle
          ? {
              handles: {
                handles: [handle],
                onMove: (_id: string, to: { hz: number; db: number | null }) =>
                  props.onDelay(moved.delayS - ((to.db ?? 0) - handle.db!) / 360 / handle.hz),
                onSettle: props.onSettle,
              },
            }
          : {})}
      />
    </div>
  );
}

/** The phase where it counts most, in the hand; null where nothing is judged, or the time reference is looked at. */
function handleOf(reading: PairReading | NoPair, apartDeg: Float64Array, moved: AlignSource) {
  if (!JUDGED(reading)) return null;
  const at = reading.weight.reduce((best, w, n) => (w > reading.weight[best]! ? n : best), 0);
  const hz = LIBRARY_GRID[at]!;
  const text = `${(1000 * moved.delayS).toFixed(2)} ms`;
  return { id: 'delay', label: `Delay of ${moved.name}`, hz, db: apartDeg[at]!, value: { text, step: 1 } };
}

/** What is unwrapped in the shared band, and half a turn around it. */
function unwrappedRange(curves: readonly LiveCurve[], band: { from: number; to: number } | null) {
  const values = curves.flatMap((c) =>
    [...c.values].filter(
      (v, n) =>
        Number.isFinite(v) && (!band || (LIBRARY_GRID[n]! >= band.from && LIBRARY_GRID[n]! <= band.to)),
    ),
  );
  const [low, high] = values.length > 0 ? [Math.min(...values), Math.max(...values)] : [0, 0];
  return { lowDb: 180 * Math.floor(low / 180) - 180, highDb: 180 * Math.ceil(high / 180) + 180 };
}
