import { NativeSelect, Switch } from '@mantine/core';
import type { Project, SweepLook } from '@pebble-hall/core/project';
import { NumberField } from '../../../parts/NumberField';

interface Props {
  project: Pick<Project, 'calibrations'>;
  look: SweepLook;
  onLook: (label: string, change: Partial<SweepLook>) => void;
}

/** Which part of a trace's impulse response is seen, and which microphone's file corrects it. */
export function WindowFields({ project, look, onLook }: Props) {
  const { window, calibrationId } = look;
  const files = Object.values(project.calibrations);
  const field = { unit: 'ms', digits: 1, min: 0.1, max: 1000, step: 1, width: 74 };
  return (
    <>
      <div className="row">
        <Switch
          size="xs"
          label="window"
          checked={window !== null}
          onChange={(e) =>
            onLook('window of a trace', {
              window: e.currentTarget.checked ? { beforeS: 0.002, afterS: 0.01 } : null,
            })
          }
        />
        {window ? (
          <>
            <NumberField
              {...field}
              label="Window ahead of the arrival"
              value={1000 * window.beforeS}
              onChange={(ms) => onLook('window of a trace', { window: { ...window, beforeS: ms / 1000 } })}
            />
            to
            <NumberField
              {...field}
              label="Window behind the arrival"
              value={1000 * window.afterS}
              onChange={(ms) => onLook('window of a trace', { window: { ...window, afterS: ms / 1000 } })}
            />
          </>
        ) : null}
      </div>
      {window ? (
        <span className="quiet" style={{ fontSize: 12.5 }}>
          Below about {Math.round(1 / (window.beforeS + window.afterS))} Hz so short a window says little.
        </span>
      ) : null}
      {files.length > 0 || calibrationId !== null ? (
        <NativeSelect
          size="xs"
          aria-label="Microphone file on the trace"
          data={[
            { value: '', label: 'no other microphone file' },
            ...files.map((f) => ({ value: f.id, label: `less ${f.name}` })),
            ...(calibrationId !== null && !project.calibrations[calibrationId]
              ? [{ value: calibrationId, label: 'a file that is gone' }]
              : []),
          ]}
          value={calibrationId ?? ''}
          onChange={(e) =>
            onLook('microphone file on a trace', { calibrationId: e.currentTarget.value || null })
          }
        />
      ) : null}
    </>
  );
}
