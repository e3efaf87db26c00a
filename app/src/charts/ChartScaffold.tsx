import { memo, useEffect } from 'react';
import { CartesianGrid, LineChart, usePlotArea, XAxis, YAxis } from 'recharts';
import { axisHz, frequencyTicks, levelTicks } from './chartMath';

const MARGIN = { top: 22, right: 22, bottom: 4, left: 0 };
const AXIS_HEIGHT = 24;
export const SPAN_HEIGHT = 30;

interface ScaffoldProps {
  size: { width: number; height: number };
  band: { fromHz: number; toHz: number };
  range: { lowDb: number; highDb: number };
  levelLabel: string;
  /** whether levels are differences, written with their sign */
  signed: boolean;
  span: boolean;
  /** of the level axis; round steps when absent */
  ticks?: number[];
  onArea: (area: { x: number; y: number; width: number; height: number }) => void;
}

/** Axes and grid; drawn again only when they change, not when the curves move. */
export const ChartScaffold = memo(function ChartScaffold({
  size,
  band,
  range,
  levelLabel,
  signed,
  span,
  ticks,
  onArea,
}: ScaffoldProps) {
  const { lines, labels } = frequencyTicks(band.fromHz, band.toHz);
  const levels = ticks ?? levelTicks(range.lowDb, range.highDb);
  const ends = [{ f: band.fromHz }, { f: band.toHz }];
  return (
    <div aria-hidden="true">
      <LineChart
        accessibilityLayer={false}
        width={size.width}
        height={size.height}
        data={ends}
        margin={{ ...MARGIN, bottom: MARGIN.bottom + (span ? SPAN_HEIGHT : 0) }}
      >
        <CartesianGrid
          stroke="var(--line-soft)"
          verticalCoordinatesGenerator={(p) => verticals(p.offset, band, lines)}
        />
        <XAxis
          dataKey="f"
          type="number"
          scale="log"
          domain={[band.fromHz, band.toHz]}
          ticks={labels}
          interval={0}
          allowDataOverflow
          tickFormatter={axisHz}
          height={AXIS_HEIGHT}
          stroke="var(--line)"
          tick={{ fill: 'var(--soft)', fontSize: 11.5 }}
          tickLine={false}
        />
        <YAxis
          type="number"
          domain={[range.lowDb, range.highDb]}
          ticks={levels}
          interval={0}
          allowDataOverflow
          width={46}
          stroke="var(--line)"
          tick={{ fill: 'var(--soft)', fontSize: 11.5 }}
          tickLine={false}
          tickFormatter={(v: number) => (v < 0 ? `\u2212${-v}` : v > 0 && signed ? `+${v}` : String(v))}
        />
        <PlotAreaProbe onArea={onArea} />
      </LineChart>
      <span style={{ position: 'absolute', left: 14, top: 1, fontSize: 11.5, color: 'var(--soft)' }}>
        {levelLabel}
      </span>
    </div>
  );
});

function verticals(
  offset: { left?: number; width?: number },
  { fromHz, toHz }: { fromHz: number; toHz: number },
  lines: number[],
) {
  const { left = 0, width = 0 } = offset;
  return lines.map((f) => left + (width * Math.log(f / fromHz)) / Math.log(toHz / fromHz));
}

/** Tells where Recharts has put its plot area. */
function PlotAreaProbe({ onArea }: Pick<ScaffoldProps, 'onArea'>) {
  const area = usePlotArea();
  const { x, y, width, height } = area ?? { x: 0, y: 0, width: 0, height: 0 };
  useEffect(() => {
    if (width > 0 && height > 0) onArea({ x, y, width, height });
  }, [x, y, width, height, onArea]);
  return null;
}
