import { NativeSelect, Switch, TextInput } from '@mantine/core';
import type { Project } from '@pebble-hall/core/project';
import { useStore } from 'zustand';
import { NumberField } from '../../../parts/NumberField';
import { liveSession, setPlaying } from '../../../services/liveSession';
import { deviceName } from '../../../services/theDevice';
import { changeBench } from './changeBench';

/** How the device is plugged, and the noise that goes through it. */
export function FeedCard({ project }: { project: Project }) {
  const { output, inputs, levelDbfs } = project.live.electronics;
  const called = deviceName(project);
  const { status, isPlaying } = useStore(liveSession);
  const taken = project.place.loudspeakers.find((l) => l.output === output && l.fitted);
  const connectors = (most: number) => Array.from({ length: most }, (_, i) => String(i + 1));
  const setInput = (i: number, value: string) =>
    void changeBench('input of the device', {
      inputs:
        value === '' ? inputs.slice(0, 1) : [...inputs.slice(0, i), Number(value), ...inputs.slice(i + 1)],
    });
  return (
    <section className="card" aria-label="Device">
      <h2>
        Device{' '}
        <small>{isPlaying ? 'noise plays' : status === 'on' ? 'silent' : 'starts with the session'}</small>
      </h2>
      <div className="row">
        <TextInput
          size="xs"
          aria-label="Name of the device"
          key={called}
          defaultValue={called}
          maxLength={80}
          style={{ flex: 1 }}
          onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
          onBlur={(e) => {
            const name = e.currentTarget.value.trim();
            if (name !== called) void changeBench('name of the device', { deviceName: name });
          }}
        />
        <NativeSelect
          size="xs"
          aria-label="Output that feeds it"
          data={connectors(64).map((n) => ({ value: n, label: `output ${n}` }))}
          value={String(output)}
          onChange={(e) =>
            void changeBench('output that feeds the device', { output: Number(e.currentTarget.value) })
          }
        />
      </div>
      <div className="row">
        {[0, 1].map((i) => (
          <NativeSelect
            key={i}
            size="xs"
            aria-label={`Input of channel ${'AB'[i]}`}
            style={{ flex: 1 }}
            data={[
              ...(i === 1 ? [{ value: '', label: 'no channel B' }] : []),
              ...connectors(16)
                .filter((n) => Number(n) !== inputs[1 - i])
                .map((n) => ({ value: n, label: `${'AB'[i]}: input ${n}` })),
            ]}
            value={inputs[i] === undefined ? '' : String(inputs[i])}
            onChange={(e) => setInput(i, e.currentTarget.value)}
          />
        ))}
      </div>
      <div className="row">
        Level
        <NumberField
          label="Level into the device"
          value={levelDbfs}
          unit="dBFS"
          min={-80}
          max={-3}
          step={1}
          width={106}
          onChange={(value) => void changeBench('level into the device', { levelDbfs: value })}
        />
        <Switch
          size="sm"
          label="Play"
          aria-label="Play through the device"
          disabled={status !== 'on' || taken !== undefined}
          checked={isPlaying}
          onChange={(e) => setPlaying(e.currentTarget.checked)}
        />
      </div>
      {taken ? (
        <span className="attention">
          Output {output} feeds {taken.name}: choose one that no loudspeaker hangs on.
        </span>
      ) : null}
    </section>
  );
}
