import { Button } from '@mantine/core';
import type { ChannelDesign, ExactChannel } from '@pebble-hall/core/correct';
import type { Correction, Family } from '@pebble-hall/core/project';
import type { correctionVerbs } from '../correctionVerbs';
import { HowMuchCard } from './HowMuchCard';
import { PredictionCard } from './PredictionCard';
import { SpanCard } from './SpanCard';
import { TargetCard } from './TargetCard';
import type { Edit } from '../useCorrection';

interface ShapeCardsProps {
  channel: { name: string };
  /** the family of the channel, and whether there are others */
  family: Family | null;
  families: number;
  correction: Correction;
  /** as stored: edits go on top of it */
  stored: Correction;
  design: ChannelDesign | null;
  made: ExactChannel | null;
  guard: string;
  verbs: ReturnType<typeof correctionVerbs>;
  edit: Edit;
  handle: number | null;
  onHandle: (index: number) => void;
}

/** What a channel shall become, how much of it, where, and what comes of it. */
export function ShapeCards(props: ShapeCardsProps) {
  const { channel, family, correction, stored, design, verbs, edit } = props;
  return (
    <>
      <TargetCard
        target={verbs.target}
        family={family && props.families > 1 ? { name: family.name, own: verbs.ownTarget } : null}
        rollOffs={design?.rollOffs ?? null}
        reach={design?.reach ?? null}
        selected={props.handle}
        placed={Object.keys(correction.targetLevels).length > 0}
        onSelect={props.onHandle}
        onEdit={verbs.setTarget}
        onOwn={verbs.setOwnTarget}
        onShift={verbs.shiftTarget}
        onPlaceAgain={verbs.placeTargetAgain}
      />
      <HowMuchCard correction={correction} stored={stored} onEdit={edit} />
      <SpanCard
        stored={stored}
        channel={channel.name}
        family={family && family.loudspeakerIds.length > 1 ? family.name : null}
        span={design?.span ?? null}
        own={verbs.ownSpan}
        onSpan={verbs.setSpan}
        onFamily={verbs.setFamilySpan}
        onFind={verbs.findSpan}
      />
      <PredictionCard design={design} made={props.made} guard={props.guard}>
        <Button component="a" href="/hand-over" size="compact-sm" style={{ flexShrink: 0 }}>
          Hand over
        </Button>
      </PredictionCard>
    </>
  );
}
