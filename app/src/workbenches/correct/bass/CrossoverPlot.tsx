import { logGrid } from '@pebble-hall/core/signal';
import type { ChartTrace } from '../../../charts/drawTraces';
import { Note } from '../../../parts/Note';
import { ResponseChart, type Smoothing } from '../../../charts/ResponseChart';
import type { CrossoverState } from './useCrossover';

const grid = logGrid();

interface CrossoverPlotProps {
  name: string;
  reading: CrossoverState | null;
  smoothing: Smoothing;
  onSmoothing: (smoothing: Smoothing) => void;
}

/** A channel, the subwoofers and both together over all spots, and the low-frequency channel where there is one. */
export function CrossoverPlot({ name, reading, smoothing, onSmoothing }: CrossoverPlotProps) {
  return (
    <ResponseChart
      key="joint"
      label={`${name} and the subwoofers: each and together, average of the spots`}
      frequency={reading?.frequency ?? grid}
      within={{ fromHz: 25, toHz: 400 }}
      traces={reading ? tracesOf(name, reading) : []}
      smoothing={smoothing}
      onSmoothing={onSmoothing}
    />
  );
}

function tracesOf(name: string, { mainDb, subsDb, sumDb, lowDb }: CrossoverState): ChartTrace[] {
  const traces: ChartTrace[] = [
    { id: 'main', label: name, role: 'measured', colour: 'trace-mussel', levels: mainDb },
    { id: 'subs', label: 'subwoofers', role: 'measured', colour: 'trace-gorse', levels: subsDb },
    { id: 'sum', label: 'sum (predicted)', role: 'predicted', colour: 'trace-heather', levels: sumDb },
  ];
  if (lowDb)
    traces.push({
      id: 'low',
      label: 'low-frequency channel (predicted)',
      role: 'predicted',
      colour: 'trace-kelp',
      levels: lowDb,
    });
  return traces;
}

/** Below this share of a perfect sum a joint asks for work. */
const POOR = 0.7;

/** The joint read aloud. */
export function CrossoverNotes({
  name,
  reading,
  aligned,
}: {
  name: string;
  reading: CrossoverState | null;
  /** whether levels and delays have been set */
  aligned: boolean;
}) {
  if (!reading || reading.efficiency === null) return null;
  return (
    <>
      <Note number={1} attention={reading.efficiency < POOR}>
        {name} and the subwoofers make {Math.round(100 * reading.efficiency)} % of a perfect sum where both
        play alike. {reading.efficiency < POOR ? 'Find delay and polarity below.' : 'They add up.'}
      </Note>
      {aligned ? null : (
        <Note number={2} attention>
          Levels and delays are still as the processor had them. Bring them together first, on Levels and
          delays; then find the joint.
        </Note>
      )}
    </>
  );
}
