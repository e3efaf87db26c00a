import { Button } from '@mantine/core';
import type { Loudspeaker, Project } from '@pebble-hall/core/project';
import { useState } from 'react';
import { NumberField } from '../../../parts/NumberField';
import { checkChannel } from '../../../services/measuring';
import type { Change } from '../../../services/changeProject';
import { practiceFaults, setPracticeFaults } from '../../../ports/rig';
import { compareAlone, type HeardAlone } from './compareAlone';
import type { Guarded } from '../useGuarded';

interface HelperProps {
  project: Project;
  change: Change;
  guarded: Guarded;
  busy: boolean;
  sharing: Loudspeaker[];
}

/** Two loudspeakers on one output: heard one at a time, until their own gains match. */
export function SharedOutputHelper({ project, guarded, busy, sharing }: HelperProps) {
  const [heard, setHeard] = useState<Record<string, HeardAlone>>({});
  const [gains, setGains] = useState(() => practiceFaults().ownGainDb);
  const simulated = project.rig.kind === 'simulated';
  const others = (l: Loudspeaker) => sharing.filter((o) => o !== l).map((o) => o.name);

  const hear = (l: Loudspeaker) =>
    guarded.run(`${l.name} alone`, async (signal) => {
      if (simulated) {
        const unplugged = sharing.filter((o) => o !== l).map((o) => o.id);
        setPracticeFaults({ ...practiceFaults(), unplugged });
      }
      try {
        const { check } = await checkChannel(project, l, { signal, onProgress: guarded.setProgress });
        setHeard((all) => ({ ...all, [l.id]: { ...check, role: l.role } }));
      } finally {
        if (simulated) setPracticeFaults({ ...practiceFaults(), unplugged: [] });
      }
    });
  const [first, second] = sharing;
  const both = first && second && heard[first.id] && heard[second.id];
  return (
    <section className="card" aria-label="Match them first" style={{ flexShrink: 0 }}>
      <h2>Match them first, one at a time</h2>
      <span className="quiet">
        {simulated
          ? 'The stand-in pulls the other cable by itself.'
          : 'Pull the cable of the other one, then press its button.'}
      </span>
      {sharing.map((l) => (
        <div className="row" key={l.id}>
          <Button size="compact-sm" variant="default" disabled={busy} onClick={() => void hear(l)}>
            Hear {l.name} alone
          </Button>
          {simulated ? (
            <NumberField
              label={`Gain knob of ${l.name}`}
              value={gains[l.id] ?? 0}
              unit="dB"
              min={-12}
              max={12}
              step={0.5}
              width={84}
              onChange={(value) => {
                const next = { ...practiceFaults().ownGainDb, [l.id]: value };
                setPracticeFaults({ ...practiceFaults(), ownGainDb: next });
                setGains(next);
              }}
            />
          ) : null}
          <span className="mono">
            {heard[l.id] ? `${levelText(heard[l.id]!)}` : `without ${others(l).join(', ')}`}
          </span>
        </div>
      ))}
      {both ? (
        <span>{compareAlone(first.name, heard[first.id]!, second.name, heard[second.id]!)}</span>
      ) : null}
    </section>
  );
}

const levelText = ({ margins, verdict }: HeardAlone) => {
  const own = margins.filter(
    ({ centre }) => verdict.band && centre >= verdict.band.from && centre <= verdict.band.to,
  );
  const power = own.reduce((sum, m) => sum + 10 ** (m.signalDb / 10), 0) / Math.max(1, own.length);
  return own.length === 0 ? 'nothing' : `${(10 * Math.log10(power)).toFixed(1)} dB`;
};
