import type { InputLevel } from '@pebble-hall/core/live';

const LOWEST_DB = -80;
const share = (db: number) => Math.max(0, Math.min(1, 1 - db / LOWEST_DB));

/** Level of an input, its held peak, and whether it was clipped. */
export function LevelBar({ level, label }: { level: InputLevel | undefined; label: string }) {
  const [levelDb, peakDb] = [level?.levelDb ?? -Infinity, level?.peakDb ?? -Infinity];
  const isClipped = (level?.clipped ?? 0) > 0;
  return (
    <div
      role="meter"
      aria-label={label}
      aria-valuemin={LOWEST_DB}
      aria-valuemax={0}
      aria-valuenow={Math.round(Math.max(LOWEST_DB, levelDb))}
      title={
        Number.isFinite(levelDb)
          ? `${levelDb.toFixed(1)} dB, peak ${peakDb.toFixed(1)} dB re full scale`
          : 'nothing comes in'
      }
      style={{
        position: 'relative',
        height: 5,
        borderRadius: 3,
        background: 'var(--line-soft)',
        overflow: 'hidden',
      }}
    >
      <div
        style={{
          width: `${100 * share(levelDb)}%`,
          height: '100%',
          background: isClipped ? 'var(--buoy)' : 'var(--kelp)',
        }}
      />
      <div
        style={{
          position: 'absolute',
          left: `calc(${100 * share(peakDb)}% - 2px)`,
          top: 0,
          width: 2,
          height: '100%',
          background: 'var(--ink)',
          opacity: Number.isFinite(peakDb) ? 1 : 0,
        }}
      />
    </div>
  );
}
