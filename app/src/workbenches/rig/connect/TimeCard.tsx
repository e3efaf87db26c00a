import { NativeSelect, SegmentedControl } from '@mantine/core';
import { type Project, type Timing, fittedOf } from '@pebble-hall/core/project';
import { NumberField } from '../../../parts/NumberField';
import type { Change } from '../../../services/changeProject';

/** How time zero is known. */
export function TimeCard({ project, change }: { project: Project; change: Change }) {
  const { timing, loopbackInput, clickFrom, roundTrip } = project.rig;
  const set = (label: string, next: Partial<Project['rig']>) =>
    void change(label, (p) => ({ ...p, rig: { ...p.rig, ...next } }));
  const fitted = fittedOf(project);
  return (
    <section className="card" aria-label="Time">
      <h2>
        How the time is known <small>when a sweep left</small>
      </h2>
      <SegmentedControl
        aria-label="Timing"
        size="xs"
        data={[
          { value: 'loopback', label: 'Loopback' },
          { value: 'click', label: 'Click' },
          { value: 'round trip', label: 'Latency' },
        ]}
        value={timing}
        onChange={(value) =>
          set(`time by ${value}`, {
            timing: value as Timing,
            ...(value === 'click' && !clickFrom
              ? { clickFrom: fitted.find((l) => l.role === 'full range')?.id ?? null }
              : {}),
          })
        }
      />
      {timing === 'loopback' ? (
        <div className="row">
          <span>A cable from an output back to input</span>
          <NumberField
            label="Loopback input"
            value={loopbackInput ?? 2}
            unit=""
            digits={0}
            min={1}
            max={64}
            step={1}
            width={52}
            onChange={(input) => set(`loopback on input ${input}`, { loopbackInput: input })}
          />
        </div>
      ) : null}
      {timing === 'click' ? (
        <>
          <div className="row">
            <span>A soft click ahead of each sweep, from</span>
            <NativeSelect
              size="xs"
              w={130}
              aria-label="Click from"
              data={fitted
                .filter((l) => l.role === 'full range')
                .map((l) => ({ value: l.id, label: l.name }))}
              value={clickFrom ?? ''}
              onChange={(e) => set('where the click comes from', { clickFrom: e.currentTarget.value })}
            />
          </div>
          <span className="quiet">Times are as true as the plan puts this loudspeaker.</span>
        </>
      ) : null}
      {timing === 'round trip' ? (
        <span className={roundTrip ? 'quiet' : 'attention'}>
          {roundTrip
            ? `${(1000 * roundTrip.latencyS).toFixed(2)} ms, as measured. It holds as long as the devices keep their latency; the loopback is safer.`
            : 'Measure the round trip first.'}
        </span>
      ) : null}
    </section>
  );
}
