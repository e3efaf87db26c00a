import type { LiveRecord } from '@pebble-hall/core/project';
import { useEffect, useState } from 'react';
import { useStore } from 'zustand';
import { TimeChart, type TimeChartCurve } from '../../charts/TimeChart';
import { traceColour } from '../../charts/traceColours';
import { runJob } from '../../services/jobs';
import { liveSession } from '../../services/liveSession';

const BEFORE_S = 0.01;
const LENGTH_S = 0.05;
/** An impulse response is worked out so often. */
const EVERY_MS = 500;

/** The impulse response of one measurement with its arrival; time zero is where the delay that was taken off is over. */
export function ImpulseView({ live, selected }: { live: LiveRecord; selected: string }) {
  const isOn = useStore(liveSession, (s) => s.status === 'on');
  const [seen, setSeen] = useState<{ id: string; values: Float32Array; rate: number } | null>(null);
  useEffect(() => {
    if (!isOn) return;
    let isOver = false;
    const look = async () => {
      while (!isOver) {
        const impulse = await runJob('live.impulse', { id: selected, beforeS: BEFORE_S, lengthS: LENGTH_S });
        if (!isOver && impulse)
          setSeen({ id: selected, values: Float32Array.from(impulse.samples), rate: impulse.rate });
        await new Promise((resolve) => setTimeout(resolve, EVERY_MS));
      }
    };
    // a session that ends meanwhile leaves the last one standing
    look().catch(() => {});
    return () => void (isOver = true);
  }, [isOn, selected]);
  const index = live.measurements.findIndex((m) => m.id === selected);
  const name = live.measurements[index]?.name ?? '';
  if (!seen || seen.id !== selected)
    return (
      <p className="quiet" style={{ padding: '30px 62px' }}>
        No impulse response of {name} yet.
      </p>
    );
  const curves: TimeChartCurve[] = [
    { label: name, role: 'measured', colour: traceColour(index), values: seen.values },
  ];
  return (
    <TimeChart
      label={`Impulse response of ${name}`}
      curves={curves}
      fromMs={-1000 * BEFORE_S}
      stepMs={1000 / seen.rate}
      unit="impulse response"
    />
  );
}
