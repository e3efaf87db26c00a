import { Checkbox, NumberInput, SegmentedControl } from '@mantine/core';
import { speedOfSound } from '@pebble-hall/core/room';
import { logGrid } from '@pebble-hall/core/signal';
import { useState } from 'react';
import { formatDb } from '../../charts/chartMath';
import { Note } from '../../parts/Note';
import { sweepOf } from '@pebble-hall/core/project';
import { ResponseChart, type ChartTrace } from '../../charts/ResponseChart';
import { TimePlot } from './TimePlot';
import { colourOf } from './traceColours';
import type { LookProps } from './lookProps';
import { Unseen } from './Unseen';
import { viewedRef } from '@pebble-hall/core/jobs';
import { useJob } from '../../services/useJob';

const grid = logGrid();
const WHAT = ['Impulse', 'Step', 'Energy'] as const;
type What = (typeof WHAT)[number];
const REACH_MS = { '20 ms': 20, '60 ms': 60, '250 ms': 250 } as const;
type Reach = keyof typeof REACH_MS;

/** What arrives when at one spot, and what does the response look like without the later part? */
export default function TimeView({ project, channels, roundId, spotId }: LookProps) {
  const [what, setWhat] = useState<What>('Energy');
  const [reach, setReach] = useState<Reach>('60 ms');
  const [frame, setFrame] = useState({ leftMs: 2, rightMs: 12 });
  const [inCycles, setInCycles] = useState(false);
  const [cycles, setCycles] = useState(6);
  const channel = channels[0]!;
  const sweep = sweepOf(project, spotId, channel.id, 'as found', roundId);
  const list = sweep ? [sweep] : [];
  const ref = list[0] ? viewedRef(list[0], project) : null;
  const { value: time, problem } = useJob('views.time', ref && { ref, fromMs: -5, toMs: REACH_MS[reach] });
  const { value: whole } = useJob('views.levels', ref && { refs: [ref], corrected: true });
  const window = inCycles ? { cycles } : { leftS: frame.leftMs / 1000, rightS: frame.rightMs / 1000 };
  const { value: windowed } = useJob('views.windowed', ref && { ref, window, corrected: true });
  const { value: reflections } = useJob(
    'views.reflections',
    ref && { ref, speedOfSound: speedOfSound(project.place.temperatureC) },
  );
  const colour = colourOf(project, channel.id);
  const values = time && { Impulse: time.impulse, Step: time.step, Energy: time.energyDb }[what];
  const traces: ChartTrace[] = [
    ...(whole
      ? [
          {
            id: 'whole',
            label: 'all of it',
            role: 'reference' as const,
            colour: 'trace-slate',
            levels: whole[0]!,
          },
        ]
      : []),
    ...(windowed
      ? [{ id: 'windowed', label: 'through the window', role: 'measured' as const, colour, levels: windowed }]
      : []),
  ];
  const lowest = 1000 / frame.rightMs;
  if (!sweep || problem) return <Unseen channel={channel} sweep={sweep} problem={problem} />;
  return (
    <div className="look" style={{ gridTemplateRows: 'minmax(0, 1.1fr) minmax(0, 1fr)' }}>
      <div className="plot">
        {time && values ? (
          <TimePlot
            label={`${what} of ${channel.name} over time`}
            values={values}
            fromMs={time.fromMs}
            stepMs={time.stepMs}
            range={what === 'Energy' ? { low: -60, high: 3 } : { low: -1.05, high: 1.05 }}
            title={`${channel.name}, ${what.toLowerCase()}`}
            unit={what === 'Energy' ? 'dB re the largest' : 're the largest'}
            colour={colour}
            window={inCycles ? null : frame}
            onWindow={setFrame}
          />
        ) : (
          <Unseen channel={channel} sweep={sweep} problem={null} />
        )}
      </div>
      <section
        className="card notes"
        aria-label="What the plot says"
        style={{ gridRow: '1 / 3', gridColumn: 2 }}
      >
        <h2>What the plot says</h2>
        <SegmentedControl
          aria-label="What is shown"
          size="xs"
          data={[...WHAT]}
          value={what}
          onChange={(v) => setWhat(v as What)}
        />
        <SegmentedControl
          aria-label="How far"
          size="xs"
          data={Object.keys(REACH_MS)}
          value={reach}
          onChange={(v) => setReach(v as Reach)}
        />
        {(reflections ?? []).slice(0, 3).map((r, i) => (
          <Note key={r.delayS} number={i + 1}>
            Reflection {(1000 * r.delayS).toFixed(1)} ms after the direct sound: {r.longerM.toFixed(2)} m
            longer, {formatDb(r.levelDb)}.
          </Note>
        ))}
        {reflections?.length === 0 ? <Note number={1}>No strong reflection within 30 ms.</Note> : null}
        <h2>Window</h2>
        <Checkbox
          size="xs"
          label="as long as so many periods"
          checked={inCycles}
          onChange={(e) => setInCycles(e.currentTarget.checked)}
        />
        {inCycles ? (
          <NumberInput
            size="xs"
            label="Periods either side"
            min={1}
            max={60}
            value={cycles}
            onChange={(v) => typeof v === 'number' && v >= 1 && v <= 60 && setCycles(v)}
          />
        ) : (
          <>
            <NumberInput
              size="xs"
              label="Left side, ms"
              min={0.2}
              max={5}
              step={0.5}
              decimalScale={1}
              value={Number(frame.leftMs.toFixed(1))}
              onChange={(v) =>
                typeof v === 'number' && v >= 0.2 && v <= 5 && setFrame({ ...frame, leftMs: v })
              }
            />
            <NumberInput
              size="xs"
              label="Right side, ms"
              min={0.5}
              max={250}
              step={1}
              decimalScale={1}
              value={Number(frame.rightMs.toFixed(1))}
              onChange={(v) =>
                typeof v === 'number' && v >= 0.5 && v <= 250 && setFrame({ ...frame, rightMs: v })
              }
            />
            <span className="quiet">Below {lowest.toFixed(0)} Hz it is too short to tell anything.</span>
          </>
        )}
      </section>
      <div className="plot">
        <ResponseChart
          label={`Level of ${channel.name} through the window`}
          title={`${channel.name}, through a window`}
          frequency={grid}
          traces={traces}
          absolute
          levelLabel="dB, recorded over played"
          smoothing={24}
        />
      </div>
    </div>
  );
}
