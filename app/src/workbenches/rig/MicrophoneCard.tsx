import { Button } from '@mantine/core';
import { readCalibrationText } from '@pebble-hall/core/formats';
import type { Calibration, Project } from '@pebble-hall/core/project';
import { useRef } from 'react';
import { formatDb, formatHz } from '../../parts/chartMath';
import { tell, tellProblem } from '../../parts/tell';
import type { Change } from '../../parts/useChange';
import { sentenceOf } from '../../store';

const MOST_BYTES = 4e6;

/** The microphone and the file that corrects it, with the curve the file holds. */
export function MicrophoneCard({ project, change }: { project: Project; change: Change }) {
  const picker = useRef<HTMLInputElement>(null);
  const { calibrationId, microphone } = project.rig;
  const calibration = calibrationId ? project.calibrations[calibrationId] : undefined;
  const load = async (file: File | undefined) => {
    if (!file) return;
    try {
      if (file.size > MOST_BYTES) throw new Error('it is far too large for a calibration.');
      const { frequency, levelDb, serial } = readCalibrationText(await file.text());
      const id = crypto.randomUUID();
      const added: Calibration = { id, name: file.name.slice(0, 120), serial, frequency, levelDb };
      const done = await change(`calibration ${added.name}`, (p) => ({
        ...p,
        calibrations: { ...p.calibrations, [id]: added },
        rig: { ...p.rig, calibrationId: id },
      }));
      if (done) tell(`${added.name}: ${frequency.length} points, used for sweeps from now on.`);
    } catch (error) {
      tellProblem(
        `${file.name} was not taken as a calibration. ${sentenceOf(error)} The one before stays in use.`,
      );
    }
  };
  return (
    <section className="card" aria-label="Microphone">
      <h2>
        Microphone <small>{microphone}, pointing at the source</small>
      </h2>
      {calibration ? (
        <>
          <div className="row">
            <span style={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
              File <b>{calibration.name}</b>
            </span>
            <span className="mono" style={{ whiteSpace: 'nowrap' }}>
              {calibration.frequency.length} points
            </span>
          </div>
          <CalibrationCurve calibration={calibration} />
        </>
      ) : (
        <span className="attention">
          No calibration file: the microphone&rsquo;s own errors stay in every trace.
        </span>
      )}
      <div style={{ display: 'flex', gap: 8 }}>
        <Button size="compact-sm" variant="default" onClick={() => picker.current?.click()}>
          Choose a file
        </Button>
        {calibration ? (
          <Button
            size="compact-sm"
            variant="default"
            onClick={() =>
              void change('no calibration', (p) => ({ ...p, rig: { ...p.rig, calibrationId: null } }))
            }
          >
            Use none
          </Button>
        ) : null}
        <input
          ref={picker}
          type="file"
          aria-label="Calibration file"
          accept=".txt,.cal,.csv,.frd"
          style={{ display: 'none' }}
          onChange={(event) => {
            void load(event.target.files?.[0]);
            event.target.value = '';
          }}
        />
      </div>
    </section>
  );
}

/** The curve in the file, ±5 dB. */
function CalibrationCurve({ calibration: { frequency, levelDb } }: { calibration: Calibration }) {
  const x = (f: number) => (240 * Math.log(f / 20)) / Math.log(1000);
  const y = (db: number) => 16 - 3 * Math.max(-5, Math.min(5, db));
  const path = frequency
    .map((f, i) => `${i ? 'L' : 'M'}${x(f).toFixed(1)} ${y(levelDb[i]!).toFixed(1)}`)
    .join(' ');
  const most = levelDb.reduce((a, v, i) => (Math.abs(v) > Math.abs(levelDb[a]!) ? i : a), 0);
  return (
    <div style={{ display: 'flex', gap: 10, alignItems: 'center' }}>
      <svg
        viewBox="0 0 240 32"
        height={30}
        style={{ flex: 1, minWidth: 0 }}
        preserveAspectRatio="none"
        role="img"
        aria-label="Curve of the calibration file"
      >
        <line x1={0} x2={240} y1={16} y2={16} stroke="var(--line)" />
        <path
          d={path}
          fill="none"
          stroke="var(--trace-mussel)"
          strokeWidth={1.8}
          vectorEffect="non-scaling-stroke"
        />
      </svg>
      <span className="quiet mono" style={{ fontSize: 12, whiteSpace: 'nowrap' }}>
        most {formatDb(levelDb[most]!)} at {formatHz(frequency[most]!)}
      </span>
    </div>
  );
}
