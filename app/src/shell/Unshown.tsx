import { Button } from '@mantine/core';
import type { Project } from '@pebble-hall/core/project';
import { projectOwner, sentenceOf } from '../store';
import { notifyProblem } from '../services/notify';
import { saveProjectFile } from '../services/projectFile';

const MOST_REASON = 300;

/** In place of a workbench that could not be drawn: what failed, and how to go on without losing anything. */
export function Unshown({
  title,
  project,
  undo,
  error,
  onAgain,
}: {
  title: string;
  project: Project;
  /** what would be undone; null when nothing can be */
  undo: string | null;
  error: unknown;
  onAgain: () => void;
}) {
  const reason = error instanceof Error ? error.message : String(error);
  return (
    <section className="shed" aria-label={`${title} could not be shown`}>
      <h2>{title} could not be shown</h2>
      <p role="alert">
        Everything that was measured is stored. Something in this project cannot be drawn here
        {undo ? `; the last change was “${undo}”` : ''}. Other workbenches still open: choose one above.
      </p>
      <div style={{ display: 'flex', gap: 8, flexWrap: 'wrap' }}>
        <Button size="compact-md" onClick={onAgain}>
          Try again
        </Button>
        {undo ? (
          <Button
            size="compact-md"
            variant="default"
            onClick={() =>
              void projectOwner()
                .undo()
                .then(onAgain)
                .catch((problem: unknown) => notifyProblem(sentenceOf(problem)))
            }
          >
            Undo {undo}
          </Button>
        ) : null}
        <Button size="compact-md" variant="default" onClick={() => void saveProjectFile(project)}>
          Save the project file
        </Button>
      </div>
      <details>
        <summary>What failed</summary>
        <p className="mono">{reason.slice(0, MOST_REASON)}</p>
      </details>
    </section>
  );
}
