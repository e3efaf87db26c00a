import { memo } from 'react';
import { ActionIcon, NativeSelect, Switch } from '@mantine/core';
import type { LiveCalibration, PlannedMeasurement, Project } from '@pebble-hall/core/project';
import { IconTrash } from '../../icons';
import { useStore } from 'zustand';
import { NumberField } from '../../parts/NumberField';
import { liveSession } from '../../services/liveSession';
import { calibrationOf, microphoneOn, withMeasurement } from '../../services/liveSettings';
import { AveragingFields } from './AveragingFields';
import { changeLive } from './changeLive';

/** Inputs that can be chosen: those of the session, or as many as any rig has before one was begun. */
function inputsOf(project: Project, streaming: { number: number; name: string }[]) {
  const known =
    streaming.length > 0 ? streaming : Array.from({ length: 8 }, (_, i) => ({ number: i + 1, name: '' }));
  return known.map(({ number }) => {
    const microphone = microphoneOn(project, number);
    const what =
      number === project.rig.loopbackInput
        ? 'loopback'
        : microphone
          ? `${microphone.make} ${microphone.serial}`.trim()
          : null;
    return { value: String(number), label: what ? `${number}, ${what}` : `${number}` };
  });
}

const asText = (c: LiveCalibration) => (c.by === 'file' ? `file ${c.id}` : c.by);
const asCalibration = (text: string): LiveCalibration =>
  text.startsWith('file ') ? { by: 'file', id: text.slice(5) } : { by: text as 'microphone' | 'nothing' };

/** What the chosen measurement measures, against what. */
export const MeasurementCard = memo(function MeasurementCard({
  project,
  measurement,
}: {
  project: Project;
  measurement: PlannedMeasurement;
}) {
  const streaming = useStore(liveSession, (s) => s.inputs);
  const { id, input, reference, gainDb, inverted, calibration, averaging } = measurement;
  const set = (label: string, change: Partial<PlannedMeasurement>) =>
    void changeLive(label, (live) => withMeasurement(live, id, change));
  const inputs = inputsOf(project, streaming);
  const file = calibrationOf(project, measurement);
  return (
    <section className="card" aria-label="Measurement">
      <h2>{measurement.name}</h2>
      <div className="row">
        <NativeSelect
          size="xs"
          aria-label="Measured input"
          data={inputs}
          value={String(input)}
          onChange={(e) => set('measured input', { input: Number(e.currentTarget.value) })}
          style={{ flex: 1 }}
        />
        against
        <NativeSelect
          size="xs"
          aria-label="Reference"
          data={[{ value: 'generator', label: 'the generator' }, ...inputs]}
          value={String(reference)}
          onChange={(e) => {
            const { value } = e.currentTarget;
            set('reference', { reference: value === 'generator' ? value : Number(value) });
          }}
          style={{ flex: 1 }}
        />
      </div>
      <div className="row">
        Corrected by
        <NativeSelect
          size="xs"
          aria-label="Microphone file"
          data={[
            {
              value: 'microphone',
              label: file && calibration.by === 'microphone' ? file.name : 'the file of its microphone',
            },
            { value: 'nothing', label: 'nothing' },
            ...Object.values(project.calibrations).map((c) => ({ value: `file ${c.id}`, label: c.name })),
          ]}
          value={asText(calibration)}
          onChange={(e) => set('microphone file', { calibration: asCalibration(e.currentTarget.value) })}
          style={{ flex: 1 }}
        />
      </div>
      <div className="row">
        Averaged over
        <AveragingFields
          of={measurement.name}
          averaging={averaging ?? null}
          mayFollow
          onChange={(next) => set('averaging of a measurement', { averaging: next })}
        />
      </div>
      <div className="row">
        Gain
        <NumberField
          label="Gain added"
          value={gainDb}
          unit="dB"
          min={-60}
          max={60}
          step={0.5}
          width={68}
          onChange={(value) => set('gain of a measurement', { gainDb: value })}
        />
        <Switch
          size="xs"
          label="inverted"
          checked={inverted}
          onChange={(e) => set('polarity of a measurement', { inverted: e.currentTarget.checked })}
        />
        <ActionIcon
          size="md"
          variant="default"
          aria-label={`Remove ${measurement.name}`}
          title="Remove this measurement"
          disabled={project.live.measurements.length < 2}
          onClick={() =>
            void changeLive(`${measurement.name} removed`, (live) => ({
              ...live,
              timeReferenceId: live.timeReferenceId === id ? null : live.timeReferenceId,
              measurements: live.measurements.filter((m) => m.id !== id),
            }))
          }
        >
          <IconTrash size={16} />
        </ActionIcon>
      </div>
    </section>
  );
});
