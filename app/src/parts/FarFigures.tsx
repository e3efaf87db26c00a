import { Progress } from '@mantine/core';
import { headlineOf, type FollowState } from '../services/followState';

/** What to do now, in figures that can be read from the seat. */
export function FarFigures({ state }: { state: FollowState }) {
  const { phase, leftS, spot, where, channel, done, total, share, spots, trouble } = state;
  const still = headlineOf(state) === 'Hold still';
  return (
    <section
      aria-label="What to do now"
      style={{ display: 'grid', gap: '2vmin', justifyItems: 'center', textAlign: 'center', minWidth: 0 }}
    >
      <div
        role="status"
        style={{
          fontSize: 'min(15vmin, 17vw)',
          lineHeight: 1.05,
          fontWeight: 700,
          color: still ? 'var(--buoy)' : 'var(--kelp)',
        }}
      >
        {headlineOf(state)}
      </div>
      {phase === 'counting' ? (
        <div className="mono" aria-label="Seconds left" style={{ fontSize: '26vmin', lineHeight: 1 }}>
          {leftS}
        </div>
      ) : null}
      <div style={{ fontSize: 'min(8vmin, 9vw)', fontWeight: 600 }}>{spot}</div>
      <div style={{ fontSize: 'min(4.2vmin, 5vw)', color: 'var(--soft)' }}>
        {phase === 'sweeping' && channel ? `${channel}, sweep ${done + 1} of ${total}` : where}
      </div>
      {phase === 'sweeping' ? (
        <Progress
          aria-label="Progress of the round"
          value={(100 * (done + share)) / Math.max(1, total)}
          size="xl"
          style={{ width: 'min(80vw, 900px)' }}
        />
      ) : null}
      {trouble ? (
        <div role="alert" style={{ fontSize: 'min(3.4vmin, 4.6vw)', color: 'var(--buoy)', maxWidth: '80vw' }}>
          {trouble}
        </div>
      ) : null}
      <div style={{ fontSize: 'min(3vmin, 4vw)', color: 'var(--soft)' }}>
        {spots.filter((s) => s.state === 'taken').length} of {spots.length} spots taken
      </div>
    </section>
  );
}
