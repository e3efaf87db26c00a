import { Button } from '@mantine/core';
import { changedSince, type Project } from '@pebble-hall/core/project';
import type { ReactNode } from 'react';
import { Note } from '../../parts/Note';
import { changedWords, leftWords } from '../../words/runWords';
import { runShownAgain } from './changeRuns';
import type { Runs } from './useRuns';

/** What stands in for a run that cannot be looked at yet; null when it can. */
export function RunWaits({
  runs,
  problem,
  share,
}: {
  runs: Runs;
  problem: string | null;
  /** of what is worked out from rays that are there; null before anything is */
  share: number | null;
}): ReactNode {
  const { shown, states } = runs;
  if (!shown)
    return (
      <div className="shed" style={{ gridColumn: '1 / 3' }}>
        <h1>Nothing was run yet</h1>
        <p>
          A run sends rays from a talker, a point or the loudspeakers, and tells what arrives at the seats. It
          takes seconds, and goes on while you work elsewhere: press “New run”.
        </p>
      </div>
    );
  const state = states[shown.id];
  const why = problem ?? state?.problem;
  return (
    <div className="shed" style={{ gridColumn: '1 / 3' }} role={why ? 'alert' : 'status'}>
      <h1>
        {why
          ? `${shown.name} did not go on`
          : shown.isHeld
            ? `${shown.name} was stopped`
            : `Tracing ${shown.name}`}
      </h1>
      <p>
        {why ??
          (shown.isHeld
            ? 'There are too few rays yet to tell anything. “Go on” is in its menu above.'
            : share !== null
              ? `Its rays are there. Working out what they tell: ${Math.round(100 * share)} %.`
              : `${Math.round(100 * (state?.share ?? 0))} % of its rays are there. ${leftWords(state?.secondsLeft ?? null)}`)}
      </p>
    </div>
  );
}

/** Says what of the room the run does not know, and how far it is. */
export function RunNotes({ project, runs, from }: { project: Project; runs: Runs; from: number }) {
  const { shown, states } = runs;
  if (!shown) return null;
  const changed = changedSince(shown, project.place);
  const state = states[shown.id];
  return (
    <>
      {state && state.share < 1 ? (
        <Note number={from} attention={state.problem !== null}>
          {state.problem ??
            `${Math.round(100 * state.share)} % of its rays are there${shown.isHeld ? '; it was stopped' : ''}: figures are of those.`}
        </Note>
      ) : null}
      {changed ? (
        <Note number={from + (state && state.share < 1 ? 1 : 0)} attention>
          {changedWords(changed)}{' '}
          <Button size="compact-xs" variant="default" onClick={() => void runShownAgain(project, runs)}>
            Run it again
          </Button>
        </Note>
      ) : null}
    </>
  );
}
