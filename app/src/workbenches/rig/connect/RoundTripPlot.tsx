import type { Project } from '@pebble-hall/core/project';
import { logGrid } from '@pebble-hall/core/signal';
import type { ReactNode } from 'react';
import { ResponseChart, type ChartTrace } from '../../../charts/ResponseChart';
import { useTraceLevels } from '../../../services/useTraceLevels';
import { EmptyPlot } from '../EmptyPlot';

const grid = logGrid();
const RANGE = { lowDb: -6, highDb: 3 };

/** The interface's own response, against 1 kHz. */
export function RoundTripPlot({ project, tools }: { project: Project; tools: ReactNode }) {
  const { roundTrip } = project.rig;
  const id = roundTrip?.traceId ?? null;
  const [level] = useTraceLevels(id ? [{ traceId: id, calibration: null }] : []);
  if (!id) {
    return (
      <EmptyPlot tools={tools}>
        The round trip was not measured yet. Put a cable from an output straight to an input and press{' '}
        <b>Measure</b>.
      </EmptyPlot>
    );
  }
  const traces: ChartTrace[] = level
    ? [
        {
          id: 'own',
          label: `${roundTrip!.rigName}, output ${roundTrip!.output} to input ${roundTrip!.input}`,
          role: 'measured',
          colour: 'trace-mussel',
          levels: level.map((v) => v - level[grid.findIndex((f) => f >= 1000)]!),
        },
      ]
    : [];
  return (
    <ResponseChart
      label="Response of the interface"
      frequency={grid}
      traces={traces}
      range={RANGE}
      levelLabel="dB against 1 kHz"
      tools={tools}
    />
  );
}
