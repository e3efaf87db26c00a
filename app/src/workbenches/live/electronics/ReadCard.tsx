import { Button, NativeSelect } from '@mantine/core';
import type { Project } from '@pebble-hall/core/project';
import { useState } from 'react';
import { useStore } from 'zustand';
import { keepLive } from '../../../services/keepTrace';
import { traceName } from '../../../services/libraryCurves';
import { liveSession } from '../../../services/liveSession';
import { DEVICE_IDS } from '../../../services/liveSettings';
import { addReading, keptOverFlat } from '../../../services/readings';
import { changeBench } from './changeBench';

interface Props {
  project: Project;
  channel: number;
  readingId: string | null;
  onReading: (id: string) => void;
}

/** A knob is read from what it changes: the device is kept flat, then the knob is turned, then the curve over flat is read. */
export function ReadCard({ project, channel, readingId, onReading }: Props) {
  const isOn = useStore(liveSession, (s) => s.status === 'on');
  const [isBusy, setBusy] = useState(false);
  const { flatId } = project.live.electronics;
  const flatName = flatId === null ? null : traceName(project, flatId);
  const id = DEVICE_IDS[channel]!;
  const during = async (work: () => Promise<void>) => {
    setBusy(true);
    try {
      await work();
    } finally {
      setBusy(false);
    }
  };
  const keepFlat = () =>
    during(async () => {
      const kept = await keepLive(id, null);
      if (kept) await changeBench('device as it stands flat', { flatId: kept.id });
    });
  const readNow = () =>
    during(async () => {
      const kept = await keepLive(id, null);
      if (!kept) return;
      const over = flatName !== null ? await keptOverFlat(kept, flatId!) : kept;
      if (!over) return;
      const like = project.readings.find((r) => r.id === readingId);
      const reading = await addReading(over.id, kept.name, like);
      if (reading) onReading(reading);
    });
  return (
    <section className="card" aria-label="Read the curve">
      <h2>Read the curve</h2>
      <div className="row">
        <Button
          size="compact-sm"
          variant="default"
          disabled={!isOn || isBusy}
          onClick={() => void keepFlat()}
        >
          Keep as flat
        </Button>
        <Button size="compact-sm" disabled={!isOn || isBusy} onClick={() => void readNow()}>
          Read this curve
        </Button>
      </div>
      <span className="quiet" style={{ fontSize: 12.5 }}>
        {flatName === null
          ? 'Keep the device with all knobs flat first: what a knob does is read over that.'
          : `Read over ${flatName}.`}
      </span>
      {project.readings.length > 0 ? (
        <NativeSelect
          size="xs"
          aria-label="Reading that is shown"
          data={[
            ...(readingId !== null && project.readings.some((r) => r.id === readingId)
              ? []
              : [{ value: '', label: 'choose a reading' }]),
            ...project.readings.map((r) => ({ value: r.id, label: r.name })),
          ]}
          value={project.readings.some((r) => r.id === readingId) ? readingId! : ''}
          onChange={(e) => e.currentTarget.value !== '' && onReading(e.currentTarget.value)}
        />
      ) : null}
    </section>
  );
}
