import { logGrid } from '@pebble-hall/core/signal';
import { ResponseChart, type ChartTrace } from '../../../charts/ResponseChart';
import { TimeChart } from '../../../charts/TimeChart';
import type { TimeLook } from './readTime';
import type { BeforeAfterState } from './useBeforeAfter';
import { wrapped } from './wrapped';

const grid = logGrid();
const SLICES = ['trace-mussel', 'trace-kelp', 'trace-gorse', 'trace-buoy'];

/** Phase, impulse, step and decay at the home spot before and after, and the filter over time. */
export function TimePanel({
  channel,
  home,
  state: { data, problem },
  look,
}: {
  channel: { name: string };
  home: { name: string };
  state: BeforeAfterState;
  look: TimeLook;
}) {
  if (problem)
    return (
      <p role="alert" className="attention" style={{ padding: 24 }}>
        {problem}
      </p>
    );
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
