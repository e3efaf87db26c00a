import { useStore } from 'zustand';
import { liveSession } from '../services/liveSession';

/** A live session that goes on, whichever workbench is looked at. */
export function LivePill() {
  const { status, isPlaying, isPaused } = useStore(liveSession);
  if (status === 'off') return null;
  return (
    <a className="pill" href="/live" style={{ textDecoration: 'none' }}>
      Live session: <b>{isPlaying ? 'playing' : isPaused ? 'paused' : 'listening'}</b>
    </a>
  );
}
