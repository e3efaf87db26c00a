import { Button } from '@mantine/core';
import type { ChannelDesign, ExactChannel, SpanEdge, Target } from '@pebble-hall/core/correct';
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
  target: Target;
  /** whether the family has a target, and the channel a span of its own */
  own: { target: boolean; span: boolean; level: boolean };
  design: ChannelDesign | null;
  /** the same as it will play: with the bass that it sends */
  played: ChannelDesign | null;
  made: ExactChannel | null;
  guard: string;
  verbs: ReturnType<typeof correctionVerbs>;
  edit: Edit;
  handle: number | null;
  onHandle: (index: number) => void;
}

const NO_EDGES: SpanEdge[] = [];

/** What a channel shall become, how much of it, where, and what comes of it. */
export function ShapeCards(props: ShapeCardsProps) {
  'use memo';
  const { channel, family, correction, own, verbs, edit } = props;
  const { strength, strengthPoints, maxBoostDb, maxCutDb } = correction;
  const { design, played } = props;
  return (
    <>
      <TargetCard
        target={props.target}
        family={family && props.families > 1 ? { name: family.name, own: own.target } : null}
        rollOffs={design?.rollOffs ?? null}
        extension={design?.extension ?? null}
        selected={props.handle}
        placed={Object.keys(correction.targetLevels).length > 0}
        onSelect={props.onHandle}
        onEdit={verbs.setTarget}
        onOwn={verbs.setOwnTarget}
        onShift={verbs.shiftTarget}
        onPlaceAgain={verbs.placeTargetAgain}
      />
      <HowMuchCard {...{ strength, strengthPoints, maxBoostDb, maxCutDb }} onEdit={edit} />
      <SpanCard
        channel={channel.name}
        family={family && family.loudspeakerIds.length > 1 ? family.name : null}
        span={design?.span ?? null}
        own={own.span}
        onSpan={verbs.setSpan}
        onFamily={verbs.setFamilySpan}
        onFind={verbs.findSpan}
        edges={design?.edges ?? NO_EDGES}
        placed={own.level}
        onPlaceTarget={verbs.placeTargetAgain}
      />
      <PredictionCard design={played} made={props.made} guard={props.guard}>
        <Button component="a" href="/hand-over" size="compact-sm" style={{ flexShrink: 0 }}>
          Hand over
        </Button>
      </PredictionCard>
    </>
  );
}
