import { Popover } from '@mantine/core';
import type { Project } from '@pebble-hall/core/project';
import { useState } from 'react';
import { useStore } from 'zustand';
import { LevelBar } from '../parts/meters/LevelBar';
import { figureOf } from '../parts/meters/soundFigures';
import { SoundTable } from '../parts/meters/SoundTable';
import { liveSession } from '../services/liveSession';
import { microphoneOn } from '../services/liveSettings';
import { splOffsetDb } from '../services/theRig';
import { useLiveFrame } from '../services/useLiveFrame';

/** A live session that goes on, whichever workbench is looked at: its level, and all meters one press away. */
export function LivePill({ project }: { project: Project }) {
  const { status, isPlaying, isPaused } = useStore(liveSession);
  const frame = useLiveFrame();
  const [isOpen, setOpen] = useState(false);
  if (status === 'off') return null;
  const offsetDb = splOffsetDb(project);
  const nowDb = frame?.sound?.A.fastDb;
  return (
    <Popover position="bottom" shadow="md" opened={isOpen} onChange={setOpen}>
      <Popover.Target>
        <button type="button" className="pill" aria-haspopup="dialog" onClick={() => setOpen(!isOpen)}>
          Live: <b>{isPlaying ? 'playing' : isPaused ? 'paused' : 'listening'}</b>
          {nowDb !== undefined && Number.isFinite(nowDb) ? (
            <>
              ,{' '}
              <b className="mono" style={{ display: 'inline-block', minWidth: 42, textAlign: 'right' }}>
                {figureOf(nowDb, offsetDb)}
              </b>{' '}
              {offsetDb === null ? 'dBFS(A)' : 'dB(A)'}
            </>
          ) : null}
        </button>
      </Popover.Target>
      <Popover.Dropdown
        aria-label="Meters"
        style={{ display: 'flex', flexDirection: 'column', gap: 10, minWidth: 430 }}
      >
        <SoundTable sound={frame?.sound ?? null} offsetDb={offsetDb} />
        {(frame?.inputs ?? []).map((level) => {
          const named = microphoneOn(project, level.input);
          return (
            <div
              key={level.input}
              style={{
                display: 'grid',
                gridTemplateColumns: '150px 1fr 120px',
                gap: 8,
                alignItems: 'center',
              }}
            >
              <span>
                Input {level.input}
                {named ? `, ${named.make}` : ''}
              </span>
              <LevelBar level={level} label={`Meter of input ${level.input}`} />
              <span className={level.clipped > 0 ? 'attention' : 'quiet'} style={{ fontSize: 12.5 }}>
                {level.clipped > 0
                  ? 'clipped'
                  : Number.isFinite(level.peakDb)
                    ? `peak ${level.peakDb.toFixed(1).replace('-', '\u2212')} dBFS`
                    : 'nothing comes in'}
              </span>
            </div>
          );
        })}
        <a className="linkish" href="/live" onClick={() => setOpen(false)}>
          Go to Live
        </a>
      </Popover.Dropdown>
    </Popover>
  );
}
