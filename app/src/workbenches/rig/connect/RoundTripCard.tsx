import { Button, Checkbox } from '@mantine/core';
import { useState } from 'react';
import { NumberField } from '../../../parts/NumberField';
import { rigName, rigOf } from '../../../services/theRig';
import { takeRoundTrip } from '../../../services/recordSweep';
import type { ViewProps } from '../viewProps';

const LEVEL_DBFS = -20;

/** Output straight to input: the interface's own latency and response. */
export function RoundTripCard({
  project,
  change,
  guarded,
  busy,
  onTaken,
}: ViewProps & { onTaken: () => void }) {
  const { roundTrip, loopbackInput, kind, device } = project.rig;
  const outputs = kind === 'simulated' ? 8 : (device?.outputs ?? 2);
  const [wanted, setOutput] = useState(roundTrip?.output ?? outputs);
  const output = Math.min(wanted, outputs);
  const [input, setInput] = useState(roundTrip?.input ?? loopbackInput ?? 2);
  const take = () =>
    guarded.run('The round trip', async (signal) => {
      const found = await takeRoundTrip(
        rigOf(project),
        { output, input, levelDbfs: LEVEL_DBFS },
        { signal, onProgress: guarded.setProgress },
      );
      if (!found) {
        throw new Error(
          `nothing came back on input ${input}. Put a cable from output ${output} straight to input ${input}, with no microphone power on it.`,
        );
      }
      const traceId = crypto.randomUUID();
      const { latencyS, impulse } = found;
      const kept = await change(
        'round trip of the interface',
        (p) => ({
          ...p,
          rig: {
            ...p.rig,
            roundTrip: {
              takenAt: Date.now(),
              rigName: rigName(p),
              output,
              input,
              latencyS,
              traceId,
              divideOut: p.rig.roundTrip?.divideOut ?? false,
            },
          },
        }),
        {
          arrays: [
            {
              id: traceId,
              kind: 'trace',
              rate: impulse.rate,
              zero: impulse.zero,
              samples: Float32Array.from(impulse.samples),
            },
          ],
        },
      );
      if (kept) onTaken();
    });
  return (
    <section className="card" aria-label="Round trip">
      <h2>
        Round trip{' '}
        <small>
          {roundTrip ? `${(1000 * roundTrip.latencyS).toFixed(2)} ms` : 'output straight to input'}
        </small>
      </h2>
      <div className="row">
        <span style={{ display: 'flex', gap: 6, alignItems: 'center' }}>
          output
          <NumberField
            label="Round trip output"
            value={output}
            unit=""
            digits={0}
            min={1}
            max={outputs}
            step={1}
            width={48}
            onChange={setOutput}
          />
          to input
          <NumberField
            label="Round trip input"
            value={input}
            unit=""
            digits={0}
            min={1}
            max={64}
            step={1}
            width={48}
            onChange={setInput}
          />
        </span>
        <Button size="compact-sm" variant="default" disabled={busy} onClick={() => void take()}>
          Measure
        </Button>
      </div>
      <Checkbox
        size="xs"
        label="Divide the interface’s response out of what is measured from now on"
        checked={roundTrip?.divideOut ?? false}
        disabled={!roundTrip}
        onChange={(e) => {
          const divideOut = e.currentTarget.checked;
          void change(divideOut ? 'interface divided out' : 'interface left in', (p) => ({
            ...p,
            rig: { ...p.rig, roundTrip: p.rig.roundTrip && { ...p.rig.roundTrip, divideOut } },
          }));
        }}
      />
      {roundTrip && roundTrip.rigName !== rigName(project) ? (
        <span className="attention">It was measured with {roundTrip.rigName}: measure it again.</span>
      ) : null}
    </section>
  );
}
