import type { Project } from '@pebble-hall/core/project';
import { AreaCards } from './AreaCards';
import { FixtureCard } from './FixtureCard';
import { GroupCard } from './GroupCard';
import { ChannelCard, LoudspeakerCard } from './LoudspeakerCards';
import { PointCard } from './PointCard';
import { UnderlayCard } from './underlays/UnderlayCard';
import { SeveralCard } from './SeveralCard';

interface ThingCardsProps {
  project: Project;
  selected: ReadonlySet<string>;
  onSelected: (ids: ReadonlySet<string>) => void;
}

/** The numbers of what is chosen. */
export function ThingCards({ project, selected, onSelected }: ThingCardsProps) {
  const { place } = project;
  const [id] = selected;
  if (selected.size > 1) return <SeveralCard project={project} selected={selected} onSelected={onSelected} />;
  const loudspeaker = place.loudspeakers.find((l) => l.id === id);
  if (loudspeaker)
    return (
      <>
        <ChannelCard project={project} loudspeaker={loudspeaker} />
        <LoudspeakerCard project={project} loudspeaker={loudspeaker} />
        <GroupCard project={project} loudspeaker={loudspeaker} />
      </>
    );
  const underlay = place.underlays.find((u) => u.id === id);
  if (underlay) return <UnderlayCard key={underlay.id} project={project} underlay={underlay} />;
  const area = place.audience.find((a) => a.id === id);
  if (area) return <AreaCards project={project} area={area} />;
  const fixture = place.fixtures.find((f) => f.id === id);
  if (fixture) return <FixtureCard project={project} fixture={fixture} />;
  const point = place.seats.find((s) => s.id === id) ?? place.spots.find((s) => s.id === id);
  return point ? <PointCard project={project} point={point} /> : null;
}
