import { Button, NativeSelect } from '@mantine/core';
import type { Project } from '@pebble-hall/core/project';
import { IconVolume, IconWaveSine } from '../../../icons';
import type { Change } from '../../../services/changeProject';

interface PatchListProps {
  project: Project;
  change: Change;
  busy: boolean;
  playing: string | null;
  onPlay: (id: string, what: 'name' | 'noise') => void;
}

/** Which channel goes to which output; each speaks its name or plays a soft noise, so that ear and plan agree. */
export function PatchList({ project, change, busy, playing, onPlay }: PatchListProps) {
  const most = Math.max(
    project.rig.device?.outputs ?? 8,
    8,
    ...project.place.loudspeakers.map((l) => l.output),
  );
  const outputs = Array.from({ length: most }, (_, i) => String(i + 1));
  const move = (id: string, name: string, output: number) =>
    void change(`${name} on output ${output}`, (p) => ({
      ...p,
      place: {
        ...p.place,
        loudspeakers: p.place.loudspeakers.map((l) => (l.id === id ? { ...l, output } : l)),
      },
    }));
  const simulated = project.rig.kind === 'simulated';
  return (
    <section className="notes" aria-label="Patch" style={{ gap: 5 }}>
      <h2>Which channel is on which output{simulated ? ', heard as the microphone hears it' : ''}</h2>
      {project.place.loudspeakers.map((l) => (
        <div
          key={l.id}
          className="card"
          role="group"
          aria-label={l.name}
          style={{
            padding: '4px 10px',
            flexDirection: 'row',
            alignItems: 'center',
            gap: 8,
            opacity: l.fitted ? 1 : 0.6,
            borderColor: playing === l.id ? 'var(--kelp)' : undefined,
          }}
        >
          <span style={{ flex: 1, minWidth: 0 }}>
            <b style={{ fontWeight: 600 }}>{l.name}</b> <small className="quiet">{l.model}</small>
          </span>
          <NativeSelect
            size="xs"
            w={88}
            aria-label={`Output of ${l.name}`}
            data={outputs.map((o) => ({ value: o, label: `out ${o}` }))}
            value={String(l.output)}
            onChange={(event) => move(l.id, l.name, Number(event.currentTarget.value))}
          />
          <Button
            size="compact-sm"
            variant="default"
            leftSection={<IconVolume size={14} />}
            aria-label={`Speak the name of ${l.name}`}
            disabled={busy}
            onClick={() => onPlay(l.id, 'name')}
          >
            Name
          </Button>
          <Button
            size="compact-sm"
            variant="default"
            leftSection={<IconWaveSine size={14} />}
            aria-label={`Soft noise from ${l.name}`}
            disabled={busy}
            onClick={() => onPlay(l.id, 'noise')}
          >
            Noise
          </Button>
        </div>
      ))}
      <p className="quiet" style={{ margin: 0, fontSize: 12.5 }}>
        Press a name and see whether the loudspeaker that speaks is the one that lights up in the plan. The
        sounds are soft and swell; Escape silences everything.
      </p>
    </section>
  );
}
