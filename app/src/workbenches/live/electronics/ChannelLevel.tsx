import { traceColour } from '../../../charts/traceColours';
import { TraceMark } from '../../../parts/TraceMark';
import { LevelBar } from '../../../parts/meters/LevelBar';
import { useLiveFrame } from '../../../services/useLiveFrame';

/** What comes back on a channel now: drawn five times a second, by itself. */
export function ChannelLevel({ channel, input }: { channel: number; input: number }) {
  const level = useLiveFrame()?.inputs.find((l) => l.input === input);
  return (
    <div>
      <div className="row">
        <TraceMark colour={traceColour(channel)} />
        <span style={{ flex: 1 }}>
          Channel {'AB'[channel]}, input {input}
        </span>
        <span className="mono">
          {level && Number.isFinite(level.levelDb) ? `${level.levelDb.toFixed(1)} dBFS` : '–'}
        </span>
      </div>
      <LevelBar level={level} label={`Level of channel ${'AB'[channel]}`} />
    </div>
  );
}
