import { Button, Checkbox, NativeSelect, SegmentedControl } from '@mantine/core';
import type { DeviceChoice, Project } from '@pebble-hall/core/project';
import { useState } from 'react';
import { closeRig, microphoneOf, rigOf } from '../../../services/theRig';
import { NumberField } from '../../../parts/NumberField';
import { notifyProblem } from '../../../services/notify';
import type { Change } from '../../../services/changeProject';
import { askForDevices, type ListedDevices, type RigDescription } from '../../../ports/rig';
import { sentenceOf } from '../../../store';

const RATES = [44100, 48000, 88200, 96000, 192000];
const CHANNELS = Array.from({ length: 32 }, (_, i) => String(i + 1));

const firstChoice = ({ inputs, outputs }: ListedDevices): DeviceChoice => ({
  inputId: inputs[0]?.id ?? '',
  inputName: inputs[0]?.name ?? '',
  outputId: outputs[0]?.id ?? '',
  outputName: outputs[0]?.name ?? 'the output of the system',
  rate: 48000,
  inputs: 2,
  outputs: 2,
  releases: false,
});

/** The simulated interface, or the audio devices of this computer. */
export function InterfaceCard({
  project,
  change,
  busy,
}: {
  project: Project;
  change: Change;
  busy: boolean;
}) {
  const { kind, pace, device, loopbackInput } = project.rig;
  const [listed, setListed] = useState<ListedDevices | null>(null);
  const [opened, setOpened] = useState<RigDescription | null>(null);
  const [asking, setAsking] = useState(false);
  const set = (label: string, next: Partial<Project['rig']>) =>
    change(label, (p) => ({ ...p, rig: { ...p.rig, ...next } }));
  const choose = (next: Partial<DeviceChoice>, label: string) => {
    setOpened(null);
    if (device) void set(label, { device: { ...device, ...next } });
  };
  const connect = async () => {
    setAsking(true);
    setOpened(null);
    try {
      const found = await askForDevices();
      setListed(found);
      const there =
        device && found.inputs.some((d) => d.id === device.inputId || d.name === device.inputName);
      const wanted = there ? device : firstChoice(found);
      closeRig();
      const description = await rigOf({ rig: { ...project.rig, kind: 'web audio', device: wanted } }).open();
      setOpened(description);
      if (wanted !== device) await set(`interface ${wanted.inputName}`, { device: wanted });
    } catch (error) {
      notifyProblem(sentenceOf(error));
    } finally {
      setAsking(false);
    }
  };
  const microphone = microphoneOf(project);
  const inputs = opened?.inputs.length ?? (kind === 'simulated' ? 8 : (device?.inputs ?? 2));
  return (
    <section className="card" aria-label="Interface">
      <div className="row">
        <h2>Interface</h2>
        <SegmentedControl
          aria-label="Kind of interface"
          size="xs"
          data={[
            { value: 'simulated', label: 'Simulated' },
            { value: 'web audio', label: 'This computer' },
          ]}
          value={kind}
          disabled={busy}
          onChange={(value) => void set(`interface: ${value}`, { kind: value as 'simulated' })}
        />
      </div>
      {kind === 'simulated' ? (
        <div className="row">
          <span>
            <b>Burrow 8</b> in the Net Loft, 48 kHz, loopback on input 2
          </span>
          <SegmentedControl
            aria-label="Pace of the stand-in"
            size="xs"
            data={[
              { value: 'quick', label: 'No waiting' },
              { value: 'real time', label: 'Real time' },
            ]}
            value={pace}
            onChange={(value) => void set('pace of the rig', { pace: value as 'quick' })}
          />
        </div>
      ) : (
        <>
          <div style={{ display: 'grid', gridTemplateColumns: '1fr 84px 1fr 84px', gap: 6 }}>
            <NativeSelect
              size="xs"
              aria-label="Input device"
              data={options(listed?.inputs, device?.inputId, device?.inputName)}
              value={device?.inputId ?? ''}
              onChange={(e) => {
                const found = listed?.inputs.find((d) => d.id === e.currentTarget.value);
                if (found) choose({ inputId: found.id, inputName: found.name }, `input ${found.name}`);
              }}
            />
            <NativeSelect
              size="xs"
              aria-label="Channels to record"
              data={CHANNELS.map((c) => ({ value: c, label: `${c} in` }))}
              value={String(device?.inputs ?? 2)}
              onChange={(e) => choose({ inputs: Number(e.currentTarget.value) }, 'channels to record')}
            />
            <NativeSelect
              size="xs"
              aria-label="Output device"
              data={options(listed?.outputs, device?.outputId, device?.outputName)}
              value={device?.outputId ?? ''}
              onChange={(e) => {
                const found = listed?.outputs.find((d) => d.id === e.currentTarget.value);
                if (found) choose({ outputId: found.id, outputName: found.name }, `output ${found.name}`);
              }}
            />
            <NativeSelect
              size="xs"
              aria-label="Channels to play"
              data={CHANNELS.map((c) => ({ value: c, label: `${c} out` }))}
              value={String(device?.outputs ?? 2)}
              onChange={(e) => choose({ outputs: Number(e.currentTarget.value) }, 'channels to play')}
            />
          </div>
          <div className="row">
            <NativeSelect
              size="xs"
              w={104}
              aria-label="Sample rate"
              data={RATES.map((r) => ({ value: String(r), label: `${r / 1000} kHz` }))}
              value={String(device?.rate ?? 48000)}
              onChange={(e) => choose({ rate: Number(e.currentTarget.value) }, 'sample rate')}
            />
            <Checkbox
              size="xs"
              label="Let go of the input between takes"
              checked={device?.releases ?? false}
              disabled={!device}
              onChange={(e) => choose({ releases: e.currentTarget.checked }, 'letting go of the input')}
            />
            <Button size="compact-sm" loading={asking} disabled={busy} onClick={() => void connect()}>
              Open devices
            </Button>
          </div>
          <Opened opened={opened} device={device} />
        </>
      )}
      <div className="row">
        <span style={{ display: 'flex', gap: 8, alignItems: 'center' }}>
          Microphone on
          <NumberField
            label="Microphone input"
            value={microphone.input}
            unit=""
            digits={0}
            min={1}
            max={inputs}
            step={1}
            width={52}
            onChange={(input) =>
              void set(`microphone on input ${input}`, {
                microphones: project.rig.microphones.map((m) =>
                  m.id === microphone.id ? { ...m, input } : m,
                ),
              })
            }
          />
        </span>
        {loopbackInput === microphone.input ? (
          <span className="attention">Microphone and loopback cannot share an input.</span>
        ) : null}
      </div>
    </section>
  );
}

function options(listed: { id: string; name: string }[] | undefined, id?: string, name?: string) {
  if (listed) return listed.map((d) => ({ value: d.id, label: d.name }));
  return id !== undefined
    ? [{ value: id, label: name || 'as chosen' }]
    : [{ value: '', label: 'connect first' }];
}

function Opened({ opened, device }: { opened: RigDescription | null; device: DeviceChoice | null }) {
  if (!opened) {
    return (
      <span className="quiet">
        {device
          ? 'Not connected yet in this session; it opens with the first take.'
          : 'The browser will ask whether it may use the microphone.'}
      </span>
    );
  }
  const processed = opened.warnings.some((w) => w.startsWith('The browser does not switch'));
  return (
    <>
      <span className="good">
        Connected: {opened.inputs.length} in, {opened.outputs.length} out at {opened.rate / 1000} kHz
        {processed ? '.' : '; echo cancellation, noise suppression and gain control are off.'}
      </span>
      {opened.warnings.map((w) => (
        <span key={w} className="attention">
          {w}
        </span>
      ))}
    </>
  );
}
