import { ActionIcon, Button, Select, Switch } from '@mantine/core';
import { extentOf } from '@pebble-hall/core/place';
import { type Project, type Spot, isSpotTaken } from '@pebble-hall/core/project';
import type { ReactNode } from 'react';
import { IconTrash } from '../../icons';
import { NumberField } from '../../parts/NumberField';
import type { Change } from '../../services/changeProject';
import { withoutSpot } from './planSpots';

interface SpotCardProps {
  project: Project;
  spot: Spot;
  isNext: boolean;
  change: Change;
  onTake: () => void;
  onTakeAll: (() => void) | null;
  /** more to do with it */
  also: ReactNode;
}

/** The spot at hand: where it is, whether it counts, and the button that takes it. */
export function SpotCard({ project, spot, isNext, change, onTake, onTakeAll, also }: SpotCardProps) {
  const { shape, spots } = project.place;
  const { least, most } = extentOf(shape);
  const hasSweeps = project.sweeps.some((s) => s.spotId === spot.id);
  const set = (label: string, next: Partial<Spot>) =>
    void change(label, (p) => ({
      ...p,
      place: { ...p.place, spots: p.place.spots.map((s) => (s.id === spot.id ? { ...s, ...next } : s)) },
    }));
  return (
    <>
      <div className="row" style={{ alignItems: 'flex-start' }}>
        <div>
          <div>{isSpotTaken(project, spot) ? 'Taken' : isNext ? 'Next' : 'Chosen'}</div>
          <div className="big" style={{ color: 'var(--ink)' }}>
            <input
              className="plain-input"
              aria-label="Name of the spot"
              key={`${spot.id} ${spot.name}`}
              defaultValue={spot.name}
              maxLength={60}
              onBlur={(e) => {
                const name = e.target.value.trim();
                if (name && name !== spot.name) set(`${spot.name} is ${name} now`, { name });
                else e.target.value = spot.name;
              }}
              onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
            />
          </div>
          <div>{whereText(spots[0]!, spot)}</div>
        </div>
        <div style={{ display: 'grid', gap: 6, justifyItems: 'end' }}>
          <div style={{ display: 'flex', gap: 8, alignItems: 'flex-start' }}>
            {onTakeAll ? (
              <Button variant="default" onClick={onTakeAll}>
                Take all that are left
              </Button>
            ) : null}
            <Button onClick={onTake}>
              {isSpotTaken(project, spot) ? 'Take it again' : 'Take this spot'}
            </Button>
          </div>
          <div style={{ display: 'flex', gap: 6 }}>{also}</div>
        </div>
      </div>
      <div
        className="row"
        style={{ justifyContent: 'flex-start', flexWrap: 'wrap', rowGap: 4 }}
        title={hasSweeps ? 'This spot has sweeps: it stays where they were taken' : undefined}
      >
        {(['x', 'y', 'z'] as const).map((axis) => (
          <label key={axis} style={{ display: 'flex', alignItems: 'center', gap: 5, whiteSpace: 'nowrap' }}>
            {{ x: 'from front', y: 'from left', z: 'height' }[axis]}
            <NumberField
              label={
                { x: 'Distance from the front wall', y: 'Distance from the left wall', z: 'Height' }[axis]
              }
              value={spot.position[axis]}
              unit="m"
              min={least[axis] + 0.02}
              max={most[axis] - 0.02}
              step={0.05}
              digits={2}
              width={66}
              disabled={hasSweeps}
              onChange={(value) =>
                set(`position of ${spot.name}`, { position: { ...spot.position, [axis]: value } })
              }
            />
          </label>
        ))}
        <label style={{ display: 'flex', alignItems: 'center', gap: 5, whiteSpace: 'nowrap' }}>
          weight
          <NumberField
            label="Weight"
            value={spot.weight}
            unit=""
            min={0.1}
            max={10}
            step={0.1}
            width={48}
            onChange={(weight) => set(`weight of ${spot.name}`, { weight })}
          />
        </label>
        <Select
          aria-label="Where the microphone is"
          size="xs"
          w={104}
          allowDeselect={false}
          disabled={hasSweeps}
          data={[
            { value: 'ear', label: 'at the ear' },
            { value: 'ground plane', label: 'on the floor' },
          ]}
          value={spot.surface}
          onChange={(surface) =>
            surface &&
            set(`${spot.name} ${surface === 'ear' ? 'at the ear' : 'on the floor'}`, {
              surface: surface as Spot['surface'],
            })
          }
        />
        <span style={{ flex: 1 }} />
        <Switch
          size="xs"
          label="averaged"
          aria-label="in the average"
          styles={{ label: { whiteSpace: 'nowrap' } }}
          checked={spot.inAverage}
          onChange={(e) =>
            set(`${spot.name} ${e.currentTarget.checked ? 'in' : 'out of'} the average`, {
              inAverage: e.currentTarget.checked,
            })
          }
        />
        {spot.id !== spots[0]!.id ? (
          <ActionIcon
            size="sm"
            variant="default"
            aria-label={`Remove ${spot.name}`}
            title={hasSweeps ? 'Remove it and its sweeps' : 'Remove it'}
            onClick={() => void change(`${spot.name} removed`, (p) => withoutSpot(p, spot.id))}
          >
            <IconTrash size={13} />
          </ActionIcon>
        ) : null}
      </div>
    </>
  );
}

/** Where a spot lies from the home spot, for someone with a stand in hand; the front wall is ahead. */
export function whereText(home: Spot, { id, position, surface }: Spot): string {
  const height = surface === 'ground plane' ? 'on the floor' : `${position.z.toFixed(2)} m high`;
  if (id === home.id) return `sets level and delay, ${height}`;
  const ahead = home.position.x - position.x;
  const left = home.position.y - position.y;
  const parts = [
    Math.abs(left) >= 0.01 ? `${Math.round(100 * Math.abs(left))} cm ${left > 0 ? 'left' : 'right'}` : '',
    Math.abs(ahead) >= 0.01
      ? `${Math.round(100 * Math.abs(ahead))} cm ${ahead > 0 ? 'ahead' : 'behind'}`
      : '',
  ].filter(Boolean);
  return parts.length === 0
    ? `at the home spot, ${height}`
    : `${parts.join(' and ')} of the home spot, ${height}`;
}
