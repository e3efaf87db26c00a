import { Button } from '@mantine/core';
import type { Project } from '@pebble-hall/core/project';
import { formatHz, signedDb } from '../../../charts/chartMath';
import { DEVICE_KNOBS, knobValue, STAND_IN_DEVICE, type Knob as PrintedKnob } from '../../../ports/device';
import { turnDeviceKnobs } from '../../../services/liveSession';
import { changeBench } from './changeBench';
import { Knob } from './Knob';

const OFF_DB = DEVICE_KNOBS.find((k) => k.name === 'fader')!.least;

function knobText(knob: PrintedKnob, value: number): string {
  if (knob.unit === 'Hz') return formatHz(value);
  if (knob.name === 'fader' && value <= OFF_DB) return 'off';
  if (knob.name === 'pan')
    return Math.abs(value) < 0.01
      ? 'middle'
      : `${Math.round(100 * Math.abs(value))} ${value < 0 ? 'L' : 'R'}`;
  return `${signedDb(value, value % 1 === 0 ? 0 : 1)} ${knob.unit}`;
}

/** The front of the stand-in: every channel a row, every knob a column. What is measured turns with them. */
export function FrontPanel({ project }: { project: Project }) {
  const { knobs } = project.live.electronics;
  const set = (label: string, next: Record<string, number>) =>
    void changeBench(label, { knobs: next }).then(() => turnDeviceKnobs(null));
  return (
    <section
      aria-label={`Front of the ${STAND_IN_DEVICE.name}`}
      style={{ overflow: 'auto', padding: '4px 14px 8px', fontSize: 12.5 }}
    >
      <table style={{ borderSpacing: '10px 3px', width: '100%' }}>
        <thead>
          <tr>
            <th scope="col" style={{ textAlign: 'left' }}>
              {STAND_IN_DEVICE.name}
            </th>
            {DEVICE_KNOBS.map((k) => (
              <th
                key={k.name}
                scope="col"
                style={{ textAlign: 'left', fontWeight: 500, color: 'var(--soft)' }}
              >
                {k.printed}
              </th>
            ))}
            <td>
              <Button
                size="compact-xs"
                variant="default"
                disabled={Object.keys(knobs).length === 0}
                onClick={() => set('knobs as delivered', {})}
              >
                As delivered
              </Button>
            </td>
          </tr>
        </thead>
        <tbody>
          {Array.from({ length: STAND_IN_DEVICE.channels }, (_, c) => c + 1).map((channel) => (
            <tr key={channel}>
              <th scope="row" style={{ textAlign: 'left', fontWeight: 600 }}>
                {channel}
              </th>
              {DEVICE_KNOBS.map((k) => {
                const key = `${channel}.${k.name}`;
                const value = knobValue(knobs, channel, k.name);
                return (
                  <td key={k.name}>
                    <TurnedKnob
                      knob={k}
                      label={`Channel ${channel} ${k.printed}`}
                      value={value}
                      onTurn={(v) => turnDeviceKnobs({ ...knobs, [key]: v })}
                      onSettle={(v) => set(`${k.printed} of channel ${channel}`, { ...knobs, [key]: v })}
                    />
                  </td>
                );
              })}
              <td />
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

interface TurnedProps {
  knob: PrintedKnob;
  label: string;
  value: number;
  onTurn: (value: number) => void;
  onSettle: (value: number) => void;
}

const TurnedKnob = ({ knob, ...rest }: TurnedProps) => (
  <Knob
    {...rest}
    least={knob.least}
    most={knob.most}
    step={knob.step}
    start={knob.start}
    isRatio={knob.isRatio}
    text={knobText(knob, rest.value)}
  />
);
