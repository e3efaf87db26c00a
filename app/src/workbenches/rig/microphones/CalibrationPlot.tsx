import type { Calibration, Microphone, Project } from '@pebble-hall/core/project';
import { interpolateLog, logGrid } from '@pebble-hall/core/signal';
import { useMemo, type ReactNode } from 'react';
import { ResponseChart, type ChartTrace } from '../../../charts/ResponseChart';
import { EmptyPlot } from '../EmptyPlot';

const grid = logGrid(20, 20000, 24);
const COLOURS = [
  'trace-mussel',
  'trace-heather',
  'trace-moss',
  'trace-gorse',
  'trace-campion',
  'trace-slate',
];
const LEAST_DB = 6;

interface PlotProps {
  project: Project;
  microphone: Microphone;
  candidates: Calibration[];
  tools: ReactNode;
}

/** What a microphone reads over the truth, by its files; files not accepted yet are dashed. */
export function CalibrationPlot({ project, microphone, candidates, tools }: PlotProps) {
  const traces = useMemo(() => {
    const curve = (c: Calibration, i: number, role: ChartTrace['role'], label: string): ChartTrace => {
      const levels = interpolateLog(Float64Array.from(c.frequency), Float64Array.from(c.levelDb), grid);
      const [first, last] = [c.frequency[0]!, c.frequency.at(-1)!];
      return {
        id: c.id,
        label,
        role,
        colour: COLOURS[i % COLOURS.length]!,
        // nothing is drawn where the file says nothing
        levels: levels.map((v, k) => (grid[k]! < first || grid[k]! > last ? NaN : v)),
      };
    };
    const files = microphone.calibrationIds.flatMap((id) => project.calibrations[id] ?? []);
    return [
      ...files.map((c, i) =>
        curve(
          c,
          i,
          c.id === microphone.calibrationId ? 'measured' : 'reference',
          angleLabel(c, c.id === microphone.calibrationId),
        ),
      ),
      ...candidates.map((c, i) => curve(c, files.length + i, 'predicted', `${angleLabel(c, false)}, new`)),
    ];
  }, [project.calibrations, microphone, candidates]);
  const most = traces.reduce(
    (max, t) => t.levels.reduce((m, v) => (Number.isFinite(v) ? Math.max(m, Math.abs(v)) : m), max),
    LEAST_DB,
  );
  const range = useMemo(
    () => ({ lowDb: -2 * Math.ceil((most + 1) / 2), highDb: 2 * Math.ceil((most + 1) / 2) }),
    [most],
  );
  if (traces.length === 0) {
    return (
      <EmptyPlot tools={tools}>
        This microphone has no file yet. Choose the one that came with it, or look it up by its serial; its
        curve is shown here before you accept it.
      </EmptyPlot>
    );
  }
  return (
    <ResponseChart
      label="What the microphone reads over the truth"
      frequency={grid}
      traces={traces}
      range={range}
      levelLabel="dB over the truth"
      tools={tools}
    />
  );
}

const angleLabel = ({ name, incidenceDeg }: Calibration, inUse: boolean) =>
  `${incidenceDeg === null ? name : `${incidenceDeg}°`}${inUse ? ', in use' : ''}`;
