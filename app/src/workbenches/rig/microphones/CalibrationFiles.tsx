import { ActionIcon, Button, Radio } from '@mantine/core';
import type { Microphone, Project } from '@pebble-hall/core/project';
import { IconTrash } from '../../../icons';
import type { Change } from '../../../services/changeProject';
import { anglesFit } from './calibrationAdvice';

interface FilesProps {
  project: Project;
  microphone: Microphone;
  change: Change;
}

/** The files of a microphone, which one is in use, and the sweeps that were seen through another one. */
export function CalibrationFiles({ project, microphone, change }: FilesProps) {
  const files = microphone.calibrationIds.flatMap((id) => project.calibrations[id] ?? []);
  const set = (label: string, next: Partial<Microphone>) =>
    void change(label, (p) => ({
      ...p,
      rig: {
        ...p.rig,
        microphones: p.rig.microphones.map((m) => (m.id === microphone.id ? { ...m, ...next } : m)),
      },
    }));
  const others = project.sweeps.filter(
    (s) => s.microphoneId === microphone.id && s.calibrationId !== microphone.calibrationId,
  );
  const swap = () =>
    void change(`${others.length} sweeps through another file`, (p) => ({
      ...p,
      sweeps: p.sweeps.map((s) =>
        s.microphoneId === microphone.id ? { ...s, calibrationId: microphone.calibrationId } : s,
      ),
    }));
  const isSeenThrough = (id: string) => project.sweeps.some((s) => s.calibrationId === id);
  return (
    <section className="card" aria-label="Files of this microphone" style={{ overflow: 'auto' }}>
      <h2>
        Files of this microphone <small>{files.length === 0 ? 'none' : files.length}</small>
      </h2>
      {files.map((c) => (
        <div className="row" key={c.id}>
          <Radio
            size="xs"
            label={c.name}
            checked={c.id === microphone.calibrationId}
            onChange={() => set(`calibration ${c.name}`, { calibrationId: c.id })}
          />
          <span style={{ display: 'flex', gap: 8, alignItems: 'center', whiteSpace: 'nowrap' }}>
            <span className={anglesFit(c, microphone.pointing) === false ? 'attention' : ''}>
              {c.incidenceDeg === null ? 'angle not stated' : `${c.incidenceDeg}°`}
            </span>
            <span className="mono">{c.frequency.length} points</span>
            <ActionIcon
              size="sm"
              variant="default"
              aria-label={`Take ${c.name} away`}
              disabled={isSeenThrough(c.id)}
              title={isSeenThrough(c.id) ? 'Sweeps are seen through it' : 'Take it away'}
              onClick={() =>
                set(`${c.name} taken away`, {
                  calibrationIds: microphone.calibrationIds.filter((id) => id !== c.id),
                  calibrationId: microphone.calibrationId === c.id ? null : microphone.calibrationId,
                })
              }
            >
              <IconTrash size={13} />
            </ActionIcon>
          </span>
        </div>
      ))}
      <Radio
        size="xs"
        label="None: measure without a file"
        checked={microphone.calibrationId === null}
        onChange={() => set('no calibration', { calibrationId: null })}
      />
      {others.length > 0 ? (
        <div className="row">
          <span>
            {others.length} {others.length === 1 ? 'sweep was' : 'sweeps were'} taken through another file.
          </span>
          <Button size="compact-sm" variant="light" style={{ flexShrink: 0 }} onClick={swap}>
            See them through this one
          </Button>
        </div>
      ) : null}
    </section>
  );
}
