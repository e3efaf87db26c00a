import { Button } from '@mantine/core';
import type { MemoryLoad, Project, VerifiedStage } from '@pebble-hall/core/project';
import type { useHandOver } from '../useHandOver';

interface MeasureAgainProps {
  project: Project;
  hand: ReturnType<typeof useHandOver>;
  /** what is in the chain and can be measured again; null where nothing is */
  load: MemoryLoad | null;
  stage: VerifiedStage;
}

/** Every channel once more, at the home spot or at all of them. */
export function MeasureAgain({ project, hand, load, stage }: MeasureAgainProps) {
  const { spots } = project.place;
  const measure = (spotIds: string[]) => load && void hand.verify(load, spotIds, stage);
  return (
    <>
      <Button
        size="compact-md"
        variant={load ? 'filled' : 'default'}
        disabled={!load}
        onClick={() => measure([spots[0]!.id])}
      >
        Measure again
      </Button>
      <Button
        size="compact-md"
        variant="default"
        disabled={!load || spots.length < 2}
        title="Every channel at every spot; carry the microphone along"
        onClick={() => measure(spots.map((s) => s.id))}
      >
        At all spots
      </Button>
    </>
  );
}
