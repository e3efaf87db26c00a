import { NativeSelect } from '@mantine/core';
import { type Microphone, type Project, fittedOf, sweepOf } from '@pebble-hall/core/project';
import { logGrid } from '@pebble-hall/core/signal';
import { useState, type ReactNode } from 'react';
import { ResponseChart, type Smoothing, type ChartTrace } from '../../../charts/ResponseChart';
import { useTraceLevels } from '../../../services/useTraceLevels';
import { EmptyPlot } from '../EmptyPlot';

const grid = logGrid();

interface PlotProps {
  project: Project;
  microphone: Microphone;
  tools: ReactNode;
}

/** One channel as measured, with the microphone's file and without it. */
export function WithAndWithoutPlot({ project, microphone, tools }: PlotProps) {
  const home = project.place.spots[0]!;
  const heard = fittedOf(project).flatMap((l) => {
    const traceId = sweepOf(project, home.id, l.id)?.traceId ?? project.rig.checks[l.id]?.traceId;
    return traceId ? [{ id: l.id, name: l.name, traceId }] : [];
  });
  const [wanted, setWanted] = useState<string | null>(null);
  const [smoothing, setSmoothing] = useState<Smoothing>(6);
  const chosen = heard.find((h) => h.id === wanted) ?? heard[0];
  const calibration = microphone.calibrationId ? project.calibrations[microphone.calibrationId]! : null;
  const [without, withFile] = useTraceLevels(
    chosen
      ? [
          { traceId: chosen.traceId, calibration: null },
          { traceId: chosen.traceId, calibration },
        ]
      : [],
  );
  if (!chosen) {
    return (
      <EmptyPlot tools={tools}>
        Nothing was measured yet. <b>Check every channel</b> under Channels, then compare with and without the
        file here.
      </EmptyPlot>
    );
  }
  const traces: ChartTrace[] = [];
  if (withFile && calibration)
    traces.push({
      id: 'with',
      label: `${chosen.name}, with the file`,
      role: 'measured',
      colour: 'trace-kelp',
      levels: withFile,
    });
  if (without)
    traces.push({
      id: 'without',
      label: calibration ? 'without it' : `${chosen.name}, without a file`,
      role: calibration ? 'reference' : 'measured',
      colour: 'trace-buoy',
      levels: without,
    });
  return (
    <ResponseChart
      label="With and without the microphone's file"
      frequency={grid}
      traces={traces}
      levelLabel="dB"
      smoothing={smoothing}
      onSmoothing={setSmoothing}
      tools={
        <>
          {tools}
          <NativeSelect
            size="xs"
            aria-label="Channel to compare"
            data={heard.map((h) => ({ value: h.id, label: h.name }))}
            value={chosen.id}
            onChange={(e) => setWanted(e.currentTarget.value)}
          />
        </>
      }
    />
  );
}
