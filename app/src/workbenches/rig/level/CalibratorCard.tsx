import { Button, NativeSelect, SegmentedControl } from '@mantine/core';
import type { LevelCalibration, Microphone, Project } from '@pebble-hall/core/project';
import type { Calibrator } from '../../../ports/rig';
import { useState } from 'react';
import { useStore } from 'zustand';
import { levelOf, microphoneOf, rigName } from '../../../services/theRig';
import type { Change } from '../../../services/changeProject';
import { practiceFaults, setPracticeFaults } from '../../../ports/rig';
import { calibratorSentence, driftSentence, linearitySentence } from './calibratorWords';
import type { MeterSession } from './meterSession';

interface CardProps {
  project: Project;
  change: Change;
  session: MeterSession;
}

/** The level calibrator: finds its tone, sets what full scale is, then checks the other level. */
export function CalibratorCard({ project, change, session }: CardProps) {
  const { listening, tone } = useStore(session.store);
  const [nominal, setNominal] = useState<94 | 114>(94);
  const microphone = microphoneOf(project);
  const level = levelOf(project);
  const store = (label: string, levels: (levels: LevelCalibration[]) => LevelCalibration[]) =>
    change(label, (p) => ({
      ...p,
      rig: {
        ...p.rig,
        microphones: p.rig.microphones.map((m: Microphone) =>
          m.id === microphone.id ? { ...m, levels: levels(m.levels) } : m,
        ),
      },
    }));
  const stable = tone.state === 'stable' ? tone : null;
  const canCheck = level && !level.stale && level.calibration.nominalDb !== nominal;
  const take = () => {
    const before = level && !level.stale ? level.calibration : null;
    const readDb = stable!.levelDb;
    const driftDb = before && nominal - readDb - (before.nominalDb - before.readDb);
    void store(`level calibration at ${nominal} dB`, (levels) => [
      ...levels,
      {
        takenAt: Date.now(),
        nominalDb: nominal,
        readDb,
        gainDb: microphone.gainDb,
        rigName: rigName(project),
        linearity: null,
        driftDb,
      },
    ]);
  };
  const check = () => {
    const { nominalDb, readDb } = level!.calibration;
    const offDb = stable!.levelDb - readDb - (nominal - nominalDb);
    void store(`check at ${nominal} dB`, (levels) => [
      ...levels.slice(0, -1),
      { ...levels.at(-1)!, linearity: { nominalDb: nominal, offDb } },
    ]);
  };
  return (
    <div style={{ display: 'flex', flexDirection: 'column', gap: 10, minHeight: 0, overflow: 'auto' }}>
      <section className="card" aria-label="Level of the microphone" style={{ flexShrink: 0 }}>
        <h2>
          Level of the microphone{' '}
          <small>
            {microphone.make} {microphone.serial}
          </small>
        </h2>
        {level ? (
          <>
            <span>
              Full scale is{' '}
              <b className="mono">{(level.calibration.nominalDb - level.calibration.readDb).toFixed(2)} dB</b>
              , by {level.calibration.nominalDb} dB on{' '}
              {new Date(level.calibration.takenAt).toLocaleString([], {
                dateStyle: 'medium',
                timeStyle: 'short',
              })}
              , gain {level.calibration.gainDb} dB.
            </span>
            {driftSentence(level.calibration) ? <span>{driftSentence(level.calibration)}</span> : null}
            {linearitySentence(level.calibration) ? (
              <span className="good">{linearitySentence(level.calibration)}</span>
            ) : null}
            {level.stale ? <span className="attention">{level.stale}</span> : null}
          </>
        ) : (
          <span>
            Not calibrated. Everything works in relative dB: responses, margins and corrections do not need
            it; sound pressure levels do.
          </span>
        )}
      </section>
      <section className="card" aria-label="Calibrator" style={{ flexShrink: 0 }}>
        <h2>Calibrate with a level calibrator</h2>
        {project.rig.kind === 'simulated' ? (
          <StandInCalibrator onPut={(c) => c && setNominal(c.levelDb)} />
        ) : null}
        <div className="row">
          <span>It makes</span>
          <SegmentedControl
            aria-label="Level of the calibrator"
            size="xs"
            data={[
              { value: '94', label: '94 dB' },
              { value: '114', label: '114 dB' },
            ]}
            value={String(nominal)}
            onChange={(value) => setNominal(Number(value) as 94)}
          />
        </div>
        <span
          role="status"
          aria-label="Calibrator reading"
          className={tone.state === 'stable' ? 'good' : tone.state === 'refused' ? 'attention' : 'quiet'}
        >
          {listening
            ? calibratorSentence(tone)
            : 'Start the meter first; then put the calibrator on the microphone.'}
        </span>
        <div style={{ display: 'flex', gap: 8, flexWrap: 'wrap' }}>
          {canCheck ? (
            <Button size="compact-sm" disabled={!stable} onClick={check}>
              Check {nominal} against {level.calibration.nominalDb} dB
            </Button>
          ) : null}
          <Button
            size="compact-sm"
            variant={canCheck ? 'default' : 'filled'}
            disabled={!stable}
            onClick={take}
          >
            Set the level by {nominal} dB
          </Button>
        </div>
      </section>
      <section className="card" aria-label="Calibrations before" style={{ flexShrink: 0 }}>
        <h2>
          Calibrations <small>{microphone.levels.length}</small>
        </h2>
        {microphone.levels.length === 0 ? <span className="quiet">None yet.</span> : null}
        {microphone.levels
          .slice(-6)
          .reverse()
          .map((c) => (
            <div className="row" key={c.takenAt}>
              <span>
                {new Date(c.takenAt).toLocaleString([], { dateStyle: 'short', timeStyle: 'short' })}
              </span>
              <span className="mono">
                {(c.nominalDb - c.readDb).toFixed(2)} dB at gain {c.gainDb} dB
              </span>
            </div>
          ))}
      </section>
    </div>
  );
}

const TROUBLES = [
  { value: '', label: 'sits well' },
  { value: 'unsteady', label: 'does not sit tight' },
  { value: 'wrong tone', label: 'makes 250 Hz' },
  { value: 'hand', label: 'is held by hand' },
];

/** The Lantern 94/114 of the stand-in, on or off the microphone. */
function StandInCalibrator({ onPut }: { onPut: (calibrator: Calibrator | null) => void }) {
  const [calibrator, setCalibrator] = useState<Calibrator | null>(() => practiceFaults().calibrator);
  const put = (next: Calibrator | null) => {
    setPracticeFaults({ ...practiceFaults(), calibrator: next });
    setCalibrator(next);
    onPut(next);
  };
  return (
    <div className="row">
      <SegmentedControl
        aria-label="Lantern 94/114"
        size="xs"
        data={[
          { value: 'off', label: 'Lantern off' },
          { value: '94', label: 'on, 94' },
          { value: '114', label: 'on, 114' },
        ]}
        value={calibrator ? String(calibrator.levelDb) : 'off'}
        onChange={(value) =>
          put(value === 'off' ? null : { levelDb: Number(value) as 94, trouble: calibrator?.trouble ?? null })
        }
      />
      <NativeSelect
        size="xs"
        aria-label="How the Lantern sits"
        data={TROUBLES}
        disabled={!calibrator}
        value={calibrator?.trouble ?? ''}
        onChange={(e) =>
          calibrator &&
          put({ ...calibrator, trouble: (e.currentTarget.value || null) as Calibrator['trouble'] })
        }
      />
    </div>
  );
}
