import { SegmentedControl } from '@mantine/core';
import type { DecayMap } from '@pebble-hall/core/views';
import { useMemo, useState } from 'react';
import { DataTable } from '../../parts/DataTable';
import { formatDb, formatHz } from '../../charts/chartMath';
import { Note } from '../../parts/Note';
import { sweepOf, usableSpots } from '@pebble-hall/core/project';
import { ResponseChart, type ChartTrace } from '../../charts/ResponseChart';
import { DecayMapPlot } from './DecayMapPlot';
import { TRACE_COLOURS } from '../../charts/traceColours';
import type { LookProps } from './lookProps';
import { Unseen } from './Unseen';
import { viewedRef } from '@pebble-hall/core/jobs';
import { useJob } from '../../services/useJob';

const REACH = {
  Lows: { fromHz: 20, toHz: 320, lengthS: 1.2, stepS: 0.005 },
  'All frequencies': { fromHz: 20, toHz: 16000, lengthS: 1.2, stepS: 0.005 },
} as const;
type Reach = keyof typeof REACH;
/** What is this far down everywhere has died away. */
const GONE_DB = -50;
const SLICES = 6;
const LOWS = { fromHz: 20, toHz: 300 };

/** How long does the room hold on to each frequency? */
export default function DecayView({ project, channels, roundId, spotId }: LookProps) {
  const [as, setAs] = useState<'Map' | 'Slices'>('Map');
  const [reach, setReach] = useState<Reach>('Lows');
  const channel = channels[0]!;
  const sweep = sweepOf(project, spotId, channel.id, 'as found', roundId);
  const { value: whole, problem } = useJob(
    'views.decay',
    sweep ? { ref: viewedRef(sweep, project), request: REACH[reach] } : null,
  );
  const all = usableSpots(project, channel.id, roundId).averaged;
  const { value: resonances } = useJob(
    'views.resonances',
    all.length > 0 ? { refs: all.map((s) => viewedRef(s, project)), band: LOWS } : null,
  );
  const found = (resonances ?? []).slice(0, 8);
  const map = useMemo(() => (whole ? untilGone(whole) : null), [whole]);
  const steps = map?.timeS.length ?? 0;
  const sliceSteps = Math.max(1, Math.floor((steps - 1) / SLICES));
  const slices: ChartTrace[] = map
    ? Array.from({ length: SLICES }, (_, i) => ({
        id: String(i),
        label: `${Math.round(1000 * map.timeS[i * sliceSteps]!)} ms`,
        role: i === 0 ? ('measured' as const) : ('noise' as const),
        colour: TRACE_COLOURS[i]!,
        levels: Float64Array.from(map.frequency, (__, row) => map.levelDb[row * steps + i * sliceSteps]!),
      }))
    : [];
  return (
    <div className="look">
      <div className="plot">
        {map && as === 'Map' ? <DecayMapPlot map={map} label={`Decay of ${channel.name}`} /> : null}
        {map && as === 'Slices' ? (
          <ResponseChart
            key={reach}
            within={REACH[reach]}
            label={`Decay of ${channel.name} in slices`}
            title={`${channel.name}, decay`}
            frequency={map.frequency}
            traces={slices}
            range={{ lowDb: -60, highDb: 5 }}
            levelLabel="dB re the loudest"
          />
        ) : null}
        {map ? null : <Unseen channel={channel} sweep={sweep} problem={problem} />}
      </div>
      <section className="card notes" aria-label="What the plot says">
        <h2>What the plot says</h2>
        <SegmentedControl
          aria-label="Shown as"
          size="xs"
          data={['Map', 'Slices']}
          value={as}
          onChange={(v) => setAs(v as 'Map')}
        />
        <SegmentedControl
          aria-label="How far"
          size="xs"
          data={Object.keys(REACH)}
          value={reach}
          onChange={(v) => setReach(v as Reach)}
        />
        {found.slice(0, 4).map((r, i) => (
          <Note key={r.frequency} number={i + 1} attention={r.overDb > 6 && r.count > r.of / 2}>
            {formatHz(r.frequency)}, {formatDb(r.overDb)}
            {r.decayS === null ? '' : `, ${r.decayS.toFixed(2)} s`}, at {r.count} of {r.of}{' '}
            {r.of === 1 ? 'spot' : 'spots'}.
          </Note>
        ))}
        {resonances && found.length === 0 ? (
          <Note number={1}>No resonance stands out of the lows by 3 dB.</Note>
        ) : null}
      </section>
      <div style={{ gridColumn: '1 / 3', display: 'grid', maxHeight: 170, minHeight: 0 }}>
        <DataTable
          note="20 to 300 Hz, over all averaged spots"
          data={{
            title: 'Low-frequency resonances',
            columns: ['Frequency', 'Over its surroundings', 'Decay for 60 dB', 'Spots'],
            rows: found.map((r) => [
              formatHz(r.frequency),
              formatDb(r.overDb),
              r.decayS === null ? 'hidden in noise' : `${r.decayS.toFixed(2)} s`,
              `${r.count} of ${r.of}`,
            ]),
          }}
        />
      </div>
    </div>
  );
}

/** The map up to where nothing of it stands above the depth that is drawn, and a tenth more. */
function untilGone(map: DecayMap): DecayMap {
  const all = map.timeS.length;
  let last = 0;
  map.levelDb.forEach((level, i) => {
    if (level > GONE_DB) last = Math.max(last, i % all);
  });
  const steps = Math.min(all, Math.max(40, Math.ceil(1.1 * last)));
  const levelDb = new Float32Array(map.frequency.length * steps);
  map.frequency.forEach((_, row) =>
    levelDb.set(map.levelDb.subarray(row * all, row * all + steps), row * steps),
  );
  return { ...map, timeS: map.timeS.slice(0, steps), levelDb };
}
