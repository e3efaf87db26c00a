import { Button } from '@mantine/core';
import type { DeviceFigures, ElectronicsBench } from '@pebble-hall/core/project';
import { useStore } from 'zustand';
import { checkDevice, deviceCheck, stopDeviceCheck } from '../../../services/deviceCheck';
import { liveSession } from '../../../services/liveSession';

type Channel = DeviceFigures['channels'][number];

const dB = (value: number | undefined) =>
  value !== undefined && Number.isFinite(value) ? value.toFixed(1) : '–';
const percent = (db: number | undefined) =>
  db !== undefined && Number.isFinite(db) ? `${Number((100 * 10 ** (db / 20)).toPrecision(2))} %` : '–';

/** Twice as much as noise would show there is told; less is only known to be less. */
const TOLD_DB = 3;
function distortion({ tone }: Channel): string {
  if (!tone) return '–';
  const { distortionDb, distortionFloorDb } = tone;
  const isTold = distortionDb > distortionFloorDb + TOLD_DB;
  return isTold ? percent(distortionDb) : `< ${percent(Math.max(distortionDb, distortionFloorDb) + TOLD_DB)}`;
}

const ROWS: [string, (c: Channel) => string, string][] = [
  ['Noise', (c) => `${dB(c.quiet?.levelDb)} dBFS`, '20 Hz to 20 kHz, nothing played'],
  ['Noise, A', (c) => `${dB(c.quiet?.weightedDb)} dBFS`, 'A-weighted'],
  ['Distortion', (c) => distortion(c), 'second to tenth harmonic of a tone at 1 kHz'],
  ['With noise', (c) => percent(c.tone?.distortionAndNoiseDb), 'all but the tone, 20 Hz to 20 kHz'],
  [
    'Latency',
    (c) => (c.latencyS === null ? '–' : `${(1000 * c.latencyS).toFixed(3)} ms`),
    'after its reference',
  ],
];

/** What the device does by itself: noise, distortion, latency. */
export function FiguresCard({ bench: { figures, inputs } }: { bench: ElectronicsBench }) {
  const isOn = useStore(liveSession, (s) => s.status === 'on');
  const step = useStore(deviceCheck, (s) => s.step);
  return (
    <section className="card" aria-label="Figures of the device">
      <h2>
        By itself{' '}
        {step === null ? (
          <Button size="compact-xs" variant="default" disabled={!isOn} onClick={() => void checkDevice()}>
            {figures ? 'Measure again' : 'Measure'}
          </Button>
        ) : (
          <Button size="compact-xs" variant="default" onClick={stopDeviceCheck}>
            Stop
          </Button>
        )}
      </h2>
      {step !== null ? (
        <span role="status">{step} …</span>
      ) : figures ? (
        <table className="figures" style={{ width: '100%' }}>
          <tbody>
            {ROWS.map(([name, text, about]) => (
              <tr key={name} title={about}>
                <th scope="row">{name}</th>
                {figures.channels.map((c, i) => (
                  <td key={i} className="mono">
                    {text(c)}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      ) : (
        <span className="quiet">
          Noise, distortion of a tone at 1 kHz and latency of{' '}
          {inputs.length > 1 ? 'both channels' : 'the channel'}, in about a quarter of a minute.
        </span>
      )}
      {figures && step === null ? (
        <small className="quiet">with {figures.levelDbfs} dBFS into it</small>
      ) : null}
    </section>
  );
}
