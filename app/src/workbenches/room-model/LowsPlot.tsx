import { ResponseChart } from '../../charts/ResponseChart';
import type { LowsSeen } from '../../services/jobs';

interface Props {
  name: string;
  runNames: readonly string[];
  colours: readonly string[];
  /** of the shown run, and of the one beside it; null while they are worked out */
  lows: readonly (LowsSeen | null)[];
  problem: string | null;
  share: number | null;
}

/** From here on the ear hears anything. */
const LEAST_HZ = 20;
/** Deeper nothing is looked at, dB below the largest. */
const DEPTH_DB = 50;

/** What waves bring to a place, level over frequency, with every mode of the room in it. */
export function LowsPlot({ name, runNames, colours, lows, problem, share }: Props) {
  const [first] = lows;
  if (!first)
    return (
      <p className="quiet" role="status" style={{ padding: 20 }}>
        {problem ?? `Working out waves … ${share === null ? '' : `${Math.round(100 * share)} %`}`}
      </p>
    );
  if ('problem' in first)
    return (
      <p role="alert" style={{ padding: 20 }}>
        {first.problem}
      </p>
    );
  const toHz = 1.2 * first.upToHz;
  const shown = lows.map((l) => (l && !('problem' in l) ? l : null));
  const within = (_: number, k: number) => first.frequency[k]! >= LEAST_HZ;
  const high = Math.max(...shown.flatMap((l) => (l ? [...l.levelDb].filter(within) : [])));
  return (
    <ResponseChart
      label={`Lows at ${name}, as waves`}
      title={`Lows, ${name}`}
      frequency={first.frequency}
      within={{ fromHz: LEAST_HZ, toHz }}
      levelLabel="level against that at 1 m, dB"
      absolute
      range={{ lowDb: high - DEPTH_DB, highDb: high + 3 }}
      traces={shown.flatMap((l, i) =>
        l && l.levelDb.length === first.levelDb.length
          ? [
              {
                id: `run ${i}`,
                label: runNames[i]!,
                role: 'predicted' as const,
                colour: colours[i]!,
                levels: l.levelDb,
              },
            ]
          : [],
      )}
    />
  );
}
