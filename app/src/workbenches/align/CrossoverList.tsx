import { Switch } from '@mantine/core';
import type { CrossoverSuggestion } from '@pebble-hall/core/alignment';
import { withSource, type AlignStep, type Project } from '@pebble-hall/core/project';
import { useMemo, useState } from 'react';
import type { AlignedPoint } from '../../services/alignSources';
import { crossoverWords, percent, settingWords } from '../../words/alignWords';
import { changeStep } from './changeAlign';
import { crossedOf, useCrossovers, type Crossed } from './useCrossovers';

interface Props {
  project: Project;
  step: AlignStep;
  movedId: string;
  points: readonly AlignedPoint[];
}

/** So many are told; the others are worse. */
const MOST = 4;

/** Other crossovers between two sources, of those that the processor offers; one click sets both sides, the delay and the polarity. */
export function CrossoverList({ project, step, movedId, points }: Props) {
  const [isWanted, setWanted] = useState(false);
  const crossed = useMemo(
    () => crossedOf(project, step, movedId, points[0]),
    [project, step, movedId, points],
  );
  const { value, busy, problem } = useCrossovers(project, step, isWanted ? crossed : null, points);
  if (!crossed) return null;
  const take = ({ filter, alignment: { delayS, inverted } }: CrossoverSuggestion) => {
    const { moved, still, isMovedLow } = crossed;
    const side = (isLow: boolean) =>
      isLow ? { lowPass: filter, highPass: null } : { highPass: filter, lowPass: null };
    void changeStep('crossover', step.id, (s) =>
      withSource(withSource(s, still.id, side(!isMovedLow)), moved.id, {
        ...side(isMovedLow),
        delayS,
        inverted,
        allPasses: [],
      }),
    );
  };
  return (
    <>
      <Switch
        size="xs"
        label={`other crossovers too${busy ? ': looking …' : ''}`}
        checked={isWanted}
        onChange={(e) => setWanted(e.currentTarget.checked)}
      />
      {problem ? <span className="quiet">{problem}</span> : null}
      {isWanted ? (
        <div role="group" aria-label="Other crossovers" style={{ display: 'grid', gap: 6 }}>
          {value?.length === 0 ? (
            <span className="quiet">With none of them do the two share a band.</span>
          ) : null}
          {value?.slice(0, MOST).map((s) => (
            <button
              key={crossoverWords(s.filter)}
              className="chip"
              aria-pressed={isSet(crossed, s)}
              style={{ display: 'block', textAlign: 'left', padding: '6px 10px', whiteSpace: 'normal' }}
              onClick={() => take(s)}
            >
              <span style={{ display: 'flex', justifyContent: 'space-between', gap: 8, fontWeight: 600 }}>
                <span>{crossoverWords(s.filter)}</span>
                <span className="mono" style={{ whiteSpace: 'nowrap' }}>
                  {percent(s.alignment.efficiency)}
                </span>
              </span>
              <small>
                {settingWords({ delayS: s.alignment.delayS, inverted: s.alignment.inverted })}; worst{' '}
                {percent(s.alignment.worst)}
              </small>
            </button>
          ))}
        </div>
      ) : null}
    </>
  );
}

/** Whether the two are set as it is suggested. */
function isSet({ moved, still, isMovedLow }: Crossed, { filter, alignment }: CrossoverSuggestion): boolean {
  const [low, high] = isMovedLow ? [moved, still] : [still, moved];
  const same = (a: unknown) => JSON.stringify(a) === JSON.stringify(filter);
  return (
    same(low.lowPass) &&
    same(high.highPass) &&
    moved.inverted === alignment.inverted &&
    Math.abs(moved.delayS - alignment.delayS) < 5e-6
  );
}
