import { Button } from '@mantine/core';
import { useEffect, useState } from 'react';
import { useStore } from 'zustand';
import { silence } from '../../../services/running';
import { microphoneOf, rigOf, splOffsetDb, placeMicrophones } from '../../../services/theRig';
import { practiceFaults, setPracticeFaults } from '../../../ports/rig';
import { CalibratorCard } from './CalibratorCard';
import { HistoryStrip } from './HistoryStrip';
import { MeterSession } from './meterSession';
import { MeterTiles } from './MeterTiles';
import type { ViewProps } from '../viewProps';

/** What full scale is in decibels of sound pressure, and how loud it is now. */
export default function LevelView({ project, change, guarded, busy }: ViewProps) {
  const [session] = useState(() => new MeterSession());
  const [large, setLarge] = useState(false);
  const listening = useStore(session.store, (s) => s.listening);
  const offset = splOffsetDb(project);
  const unit = offset === null ? 'dB re full scale' : 'dB';

  // the meter listens only while it is looked at; the stand-in's calibrator comes off with it
  useEffect(
    () => () => {
      if (session.store.getState().listening) silence();
      setPracticeFaults({ ...practiceFaults(), calibrator: null });
    },
    [session],
  );
  const listen = () =>
    guarded.run('Sound level meter', async (signal) => {
      const rig = rigOf(project);
      const { rate } = await rig.open();
      placeMicrophones(rig, project, project.place.spots[0]!.position);
      session.begin(rate);
      try {
        await new Promise<void>((resolve, reject) => {
          signal.addEventListener('abort', () => resolve(), { once: true });
          rig
            .stream([microphoneOf(project).input], ([block]) => session.process(block!), reject)
            .then(({ stop }) => {
              if (signal.aborted) stop();
              signal.addEventListener('abort', stop, { once: true });
            }, reject);
        });
      } finally {
        session.end();
      }
    });
  const tiles = <MeterTiles session={session} offsetDb={offset ?? 0} unit={unit} large={large} />;
  return (
    <div
      className="view"
      style={{ gridTemplateColumns: 'minmax(0, 1fr) 392px', gridTemplateRows: 'minmax(0, 1fr)' }}
    >
      {large ? (
        <div className="large-meter" role="dialog" aria-label="Large figures">
          {tiles}
          <Button size="lg" variant="default" onClick={() => setLarge(false)}>
            Back
          </Button>
        </div>
      ) : null}
      <div
        className="plot"
        style={{ display: 'flex', flexDirection: 'column', padding: '8px 14px 10px', gap: 8 }}
      >
        <div style={{ display: 'flex', gap: 8, alignItems: 'center' }}>
          {listening ? (
            <Button size="compact-md" variant="default" onClick={silence}>
              Stop the meter
            </Button>
          ) : (
            <Button size="compact-md" disabled={busy} onClick={() => void listen()}>
              Start the meter
            </Button>
          )}
          <Button size="compact-md" variant="default" disabled={!listening} onClick={() => session.reset()}>
            Restart Leq, max and min
          </Button>
          <span style={{ flex: 1 }} />
          <Button size="compact-md" variant="default" onClick={() => setLarge(true)}>
            Large figures
          </Button>
        </div>
        {large ? null : tiles}
        <HistoryStrip session={session} offsetDb={offset ?? 0} unit={unit} />
      </div>
      <CalibratorCard project={project} change={change} session={session} />
    </div>
  );
}
