import { SegmentedControl } from '@mantine/core';
import { logGrid } from '@pebble-hall/core/signal';
import { useState } from 'react';
import { formatHz } from '../../charts/chartMath';
import { Note } from '../../parts/Note';
import { sweepOf } from '@pebble-hall/core/project';
import { ResponseChart, type ChartTrace } from '../../charts/ResponseChart';
import { colourOf } from './traceColours';
import type { LookProps } from './lookProps';
import { Unseen } from './Unseen';
import { viewedRef } from '@pebble-hall/core/jobs';
import { useJob } from '../../services/useJob';

const grid = logGrid();
const WHAT = ['Phase', 'Group delay', 'Excess group delay'] as const;
type What = (typeof WHAT)[number];
const milliseconds = (v: number) => `${v.toFixed(2).replace('-', '\u2212')} ms`;
const degrees = (v: number) => `${v.toFixed(0).replace('-', '\u2212')}°`;

/** How much later than the arrival does each frequency come at one spot? */
export default function DelayView({ project, channels, roundId, spotId }: LookProps) {
  const [what, setWhat] = useState<What>('Group delay');
  const channel = channels[0]!;
  const sweep = sweepOf(project, spotId, channel.id, 'as found', roundId);
  const { value, problem } = useJob('views.delays', sweep ? viewedRef(sweep, project) : null);
  const band = sweep?.verdict.band ?? { from: 20, to: 20000 };
  const curve =
    value &&
    { Phase: value.phaseDeg, 'Group delay': value.groupMs, 'Excess group delay': value.excessMs }[what];
  const inside = curve
    ? [...curve].filter((v, i) => grid[i]! >= band.from && grid[i]! <= band.to && Number.isFinite(v))
    : [];
  const range = rangeOf(inside, what);
  const traces: ChartTrace[] = curve
    ? [
        {
          id: 'delay',
          label: `${channel.name}, ${what.toLowerCase()}`,
          role: 'measured',
          colour: colourOf(project, channel.id),
          levels: curve,
        },
      ]
    : [];
  const latest = curve && what !== 'Phase' ? latestIn(curve, band) : null;
  return (
    <div className="look">
      <div className="plot">
        {curve ? (
          <ResponseChart
            label={`${what} of ${channel.name}`}
            title={`${channel.name}, ${what.toLowerCase()}`}
            frequency={grid}
            traces={traces}
            range={range}
            absolute
            levelLabel={what === 'Phase' ? 'degrees, arrival taken off' : 'ms after the arrival'}
            format={what === 'Phase' ? degrees : milliseconds}
          />
        ) : (
          <Unseen channel={channel} sweep={sweep} problem={problem} />
        )}
      </div>
      <section className="card notes" aria-label="What the plot says">
        <h2>What the plot says</h2>
        <SegmentedControl
          aria-label="What is shown"
          size="xs"
          orientation="vertical"
          data={[...WHAT]}
          value={what}
          onChange={(v) => setWhat(v as What)}
        />
        {latest ? (
          <Note number={1} attention={latest.ms > 20}>
            {what === 'Group delay'
              ? `Latest at ${formatHz(latest.frequency)}: ${milliseconds(latest.ms)} after the arrival, ${(latest.ms / (1000 / latest.frequency)).toFixed(1)} periods.`
              : `Farthest from minimum phase at ${formatHz(latest.frequency)}: ${milliseconds(latest.ms)}. A filter of minimum phase cannot take that back.`}
          </Note>
        ) : null}
        <Note number={latest ? 2 : 1}>
          {what === 'Phase'
            ? 'Followed upwards from the lows, not wrapped. In a deep notch a turn may be missed.'
            : what === 'Group delay'
              ? 'Averaged over 1/6 octave and weighted by power, so that notches, where little sounds, count little.'
              : 'What is left of the group delay when that of the same magnitude at minimum phase is taken off.'}
        </Note>
      </section>
    </div>
  );
}

/** The frequency within a band, 1/3 octave from its ends, at which most delay lies. */
function latestIn(curve: Float64Array, band: { from: number; to: number }) {
  let best: { frequency: number; ms: number } | null = null;
  grid.forEach((f, i) => {
    if (f < band.from * 1.26 || f > band.to / 1.26) return;
    if (best === null || Math.abs(curve[i]!) > Math.abs(best.ms)) best = { frequency: f, ms: curve[i]! };
  });
  return best as { frequency: number; ms: number } | null;
}

/** A range that shows all but the outermost two in a hundred, and zero. */
function rangeOf(values: number[], what: What): { lowDb: number; highDb: number } {
  if (values.length === 0) return { lowDb: 0, highDb: 10 };
  const sorted = values.sort((a, b) => a - b);
  const at = (share: number) => sorted[Math.round(share * (sorted.length - 1))]!;
  const step = what === 'Phase' ? 90 : 2;
  return {
    lowDb: Math.min(0, Math.floor((at(0.02) - step / 2) / step) * step),
    highDb: Math.max(step, Math.ceil((at(0.98) + step / 2) / step) * step),
  };
}
