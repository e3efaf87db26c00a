import { MultiSelect, SegmentedControl, Select } from '@mantine/core';
import type { Loudspeaker, Spot } from '@pebble-hall/core/project';
import type { ReactNode } from 'react';
import type { Place } from './candidates';

interface WhereCardProps {
  place: Place;
  /** a listening chain says where it is heard: nothing is chosen here then */
  byChain: boolean;
  spots: Spot[];
  channels: Loudspeaker[];
  onPlace: (next: Partial<Place>) => void;
  /** what is chosen of headphones */
  children: ReactNode;
}

/** Where it is heard: at a spot of the measured room, at the output, or on headphones. */
export function WhereCard({ place, byChain, spots, channels, onPlace, children }: WhereCardProps) {
  const alsoIds = (place.alsoIds ?? []).filter((id) => id !== place.leftId && id !== place.rightId);
  const named = channels.map((l) => ({ value: l.id, label: l.name }));
  const plays = (label: string, side: 'leftId' | 'rightId') => (
    <Select
      size="xs"
      aria-label={label}
      allowDeselect={false}
      disabled={byChain}
      data={named}
      value={place[side]}
      onChange={(v) => v && onPlace({ [side]: v })}
    />
  );
  return (
    <section className="card" aria-label="Where">
      <h2>Where</h2>
      <SegmentedControl
        size="xs"
        aria-label="Where it is heard"
        disabled={byChain}
        data={[
          { value: 'room', label: 'Measured room' },
          { value: 'output', label: 'Output' },
          { value: 'headphones', label: 'Headphones' },
        ]}
        value={place.through}
        onChange={(v) => onPlace({ through: v as Place['through'] })}
      />
      {place.through === 'headphones' ? (
        children
      ) : (
        <>
          <div className="row">
            <Select
              size="xs"
              aria-label="Spot to hear"
              allowDeselect={false}
              disabled={place.through === 'output'}
              data={spots.map((s) => ({ value: s.id, label: s.name }))}
              value={place.spotId}
              onChange={(v) => v && onPlace({ spotId: v })}
            />
          </div>
          <div className="row">
            {plays('Left plays on', 'leftId')}
            {plays('Right plays on', 'rightId')}
          </div>
          {named.length > 2 && !byChain ? (
            <MultiSelect
              size="xs"
              aria-label="Others that play with Left"
              placeholder={alsoIds.length > 0 ? '' : 'and with Left, what it plays: others'}
              data={named.filter((n) => n.value !== place.leftId && n.value !== place.rightId)}
              value={alsoIds}
              onChange={(ids) => onPlace({ alsoIds: ids })}
            />
          ) : null}
        </>
      )}
    </section>
  );
}
