import { Button, Popover } from '@mantine/core';
import { MOST_WEIGHT, type AlignStep, type Place } from '@pebble-hall/core/project';
import { NumberField } from '../../parts/NumberField';
import { changeStep } from './changeAlign';

const weightOf = ({ areaWeights }: AlignStep, id: string) =>
  Object.hasOwn(areaWeights, id) ? areaWeights[id]! : 1;

/** How much the seats of each audience area count when sources are brought together over all of them. */
export function AreaWeights({ place, step }: { place: Pick<Place, 'audience'>; step: AlignStep }) {
  const areas = place.audience;
  if (areas.length < 2 || step.aim === 'place') return null;
  const isPlain = areas.every(({ id }) => weightOf(step, id) === 1);
  return (
    <Popover position="top" shadow="md" trapFocus>
      <Popover.Target>
        <Button size="compact-xs" variant="default">
          {isPlain ? 'Weights' : 'Weighted'}
        </Button>
      </Popover.Target>
      <Popover.Dropdown
        aria-label="How much the seats count"
        style={{ display: 'flex', flexDirection: 'column', gap: 6 }}
      >
        {areas.map(({ id, name }) => (
          <div key={id} className="row">
            <span style={{ flex: 1 }}>{name}</span>
            <NumberField
              label={`Weight of ${name}`}
              value={weightOf(step, id)}
              unit="×"
              min={0}
              max={MOST_WEIGHT}
              step={0.5}
              width={76}
              onChange={(weight) =>
                void changeStep(`weight of ${name}`, step.id, (s) => ({
                  ...s,
                  areaWeights: { ...s.areaWeights, [id]: weight },
                }))
              }
            />
          </div>
        ))}
        <span className="quiet" style={{ fontSize: 12.5 }}>
          Of each seat; those that count for nothing are left out of the worst, too.
        </span>
      </Popover.Dropdown>
    </Popover>
  );
}
