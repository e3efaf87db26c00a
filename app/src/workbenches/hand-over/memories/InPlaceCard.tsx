import { Button, Progress } from '@mantine/core';
import { variantOf, type MemoryLoad, type Project, type VerifiedStage } from '@pebble-hall/core/project';
import { silence } from '../../../services/running';
import { theProcessor } from '../../../services/theProcessor';
import type { useHandOver } from '../useHandOver';
import { MeasureAgain } from '../verify/MeasureAgain';

interface InPlaceCardProps {
  project: Project;
  hand: ReturnType<typeof useHandOver>;
  /** the load that is looked at */
  load: MemoryLoad | null;
  stage: VerifiedStage;
  /** whether there is anything to hand over */
  designable: boolean;
}

/** Without a line to the processor: the engineer loads the files and says so; then all of it is measured again. */
export function InPlaceCard({ project, hand, load, stage, designable }: InPlaceCardProps) {
  const { model } = theProcessor().profile;
  const variant = variantOf(project);
  const inPlaceId = project.processor.adapter === 'files only' ? project.processor.inPlaceId : null;
  const isThere = load !== null && load.id === inPlaceId;
  return (
    <section className="card" aria-label="In place">
      <h2>
        In place <small>{model}</small>
      </h2>
      {hand.work ? (
        <>
          <Progress aria-label="Progress" value={100 * hand.work.share} />
          <div className="row">
            <span>{hand.work.what} …</span>
            <Button size="compact-sm" variant="default" onClick={silence}>
              Cancel
            </Button>
          </div>
        </>
      ) : (
        <>
          <span className="quiet">
            {inPlaceId
              ? 'What was put in place counts as in the chain: sweeps taken now hear it.'
              : 'Save filters and settings, load them by hand or into the software that plays, then say so here.'}
          </span>
          <div style={{ display: 'flex', flexWrap: 'wrap', gap: 8 }}>
            <Button size="compact-md" disabled={!designable} onClick={() => void hand.putInPlace()}>
              {variant.name} is in place
            </Button>
            <Button
              size="compact-md"
              variant="default"
              disabled={!inPlaceId}
              onClick={() => void hand.takeOut()}
            >
              Taken out again
            </Button>
          </div>
          <div style={{ display: 'flex', gap: 8 }}>
            <MeasureAgain project={project} hand={hand} load={isThere ? load : null} stage={stage} />
          </div>
        </>
      )}
    </section>
  );
}
