import { logGrid } from '@pebble-hall/core/signal';
import type { ExactChannel } from '@pebble-hall/core/correct';
import type { Project } from '@pebble-hall/core/project';
import { useEffect, useState } from 'react';
import { designWorker, traceKey } from '../../parts/designs';
import { PROCESSOR } from '../../parts/exactFilters';
import { sweepOf } from '../../parts/progress';
import { ResponseChart, type ChartTrace } from '../../parts/ResponseChart';
import { TimeChart } from '../../parts/TimeChart';
import { sentenceOf } from '../../store';
import { wrapped } from './wrapped';
import type { BeforeAfter } from '@pebble-hall/core/look';
import type { Look } from './pages';

const grid = logGrid();
const SLICES = ['trace-mussel', 'trace-kelp', 'trace-gorse', 'trace-buoy'];

/** Phase, impulse, step and decay at the home spot before and after, and the filter over time. */
export function TimePanel({
  project,
  channel,
  exact,
  look,
}: {
  project: Project;
  channel: { id: string; name: string };
  exact: ExactChannel | null;
  look: Exclude<Look, 'Level' | 'Filter'>;
}) {
  const [state, setState] = useState<{
    exact: ExactChannel;
    data: BeforeAfter | null;
    problem: string | null;
  } | null>(null);
  const home = project.place.spots[0]!;
  useEffect(() => {
    if (!exact) return;
    let current = true;
    const sweep = sweepOf(project, home.id, channel.id);
    const read = async () => {
      if (!sweep) throw new Error(`there is no sweep of ${channel.name} at ${home.name} yet.`);
      const data = await designWorker().call((api) =>
        api.beforeAfter(traceKey(sweep), exact.fir, exact.sections, PROCESSOR.rate),
      );
      if (current) setState({ exact, data, problem: null });
    };
    read().catch((error: unknown) => current && setState({ exact, data: null, problem: sentenceOf(error) }));
    return () => {
      current = false;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- a new filter is a new object
  }, [exact, channel.id]);
  const fresh = state && state.exact === exact ? state : null;
  if (fresh?.problem)
    return (
      <p role="alert" className="attention" style={{ padding: 24 }}>
        {fresh.problem}
      </p>
    );
  const data = fresh?.data;
  if (!data)
    return (
      <p className="quiet" style={{ padding: 24 }}>
        Follows when the filter is made …
      </p>
    );
  const label = `${channel.name} at ${home.name}: ${look.toLowerCase()} before and after`;
  if (look === 'Phase') {
    const traces: ChartTrace[] = [
      {
        id: 'before',
        label: 'as found',
        role: 'measured',
        colour: 'trace-mussel',
        levels: wrapped(data.phase.before),
      },
      {
        id: 'after',
        label: 'as left (predicted)',
        role: 'predicted',
        colour: 'trace-heather',
        levels: wrapped(data.phase.after),
      },
      {
        id: 'filter',
        label: 'the filter itself, latency taken off',
        role: 'reference',
        colour: 'trace-kelp',
        levels: wrapped(data.phase.filter),
      },
    ];
    return (
      <ResponseChart
        label={label}
        title={label}
        frequency={grid}
        traces={traces}
        levelLabel="degrees"
        format={(v) => `${v.toFixed(0)}°`}
        range={{ lowDb: -180, highDb: 180 }}
        tools={<small className="quiet">within 3 periods of the arrival</small>}
      />
    );
  }
  if (look === 'Decay') {
    const { frequency, afterS, before, after } = data.decay;
    const traces: ChartTrace[] = afterS.flatMap((s, i) => [
      {
        id: `before ${s}`,
        label: `${1000 * s} ms`,
        role: 'measured' as const,
        colour: SLICES[i]!,
        levels: before[i]!,
      },
      { id: `after ${s}`, label: '', role: 'predicted' as const, colour: SLICES[i]!, levels: after[i]! },
    ]);
    return (
      <ResponseChart
        label={label}
        title={label}
        frequency={frequency}
        traces={traces}
        within={{ fromHz: 20, toHz: 500 }}
        range={{ lowDb: -50, highDb: 5 }}
        tools={<small className="quiet">solid as found, dashed as left</small>}
      />
    );
  }
  const curve = look === 'Impulse' ? data.impulse : data.step;
  return (
    <TimeChart
      label={label}
      fromMs={curve.fromMs}
      stepMs={curve.stepMs}
      unit="ms from the arrival"
      curves={[
        { label: 'as found', role: 'measured', colour: 'trace-mussel', values: curve.before },
        { label: 'as left (predicted)', role: 'predicted', colour: 'trace-heather', values: curve.after },
        ...(look === 'Impulse'
          ? [
              {
                label: 'the filter itself',
                role: 'measured' as const,
                colour: 'trace-kelp',
                values: data.filter.values,
              },
            ]
          : []),
      ]}
    />
  );
}
