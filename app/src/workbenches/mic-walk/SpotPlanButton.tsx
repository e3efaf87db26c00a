import { Button, Checkbox, Popover, SegmentedControl } from '@mantine/core';
import { layOutSpots, SPOT_PLANS, SPOTS_IN_PLAN, tooClose, type SpotPlan } from '@pebble-hall/core/spots';
import type { Point } from '@pebble-hall/core/geometry';
import type { Project } from '@pebble-hall/core/project';
import { extentOf } from '@pebble-hall/core/place';
import { useEffect, useMemo, useState } from 'react';
import { NumberField } from '../../parts/NumberField';
import type { Change } from '../../services/changeProject';
import { earsOf, frontOf, seatChoices, withSpotPlan } from './planSpots';

const CM_PER_INCH = 2.54;
const WORDS: Record<SpotPlan, string> = {
  Seat: 'around one head, for one listener',
  Row: 'along a row or a sofa',
  Block: 'over a whole block of seats',
};

interface SpotPlanProps {
  project: Project;
  change: Change;
  disabled: boolean;
  /** spots to show while the plan is chosen; null when it is not */
  onPreview: (spots: Point[] | null) => void;
}

/** Lays out the spots of a plan from the seats. */
export function SpotPlanButton({ project, change, disabled, onPreview }: SpotPlanProps) {
  const { place } = project;
  const choices = useMemo(() => seatChoices(place), [place]);
  const isInches = place.lengthUnit === 'ft';
  const [open, setOpen] = useState(false);
  const [plan, setPlan] = useState<SpotPlan>(place.audience.length > 0 ? 'Block' : 'Row');
  const [seatIds, setSeatIds] = useState<string[]>(() =>
    choices.slice(0, place.audience.length > 0 ? 1 : 3).map((s) => s.id),
  );
  const [spreadCm, setSpreadCm] = useState(30);
  const scale = isInches ? CM_PER_INCH : 1;
  const planned = useMemo(() => {
    const ears = earsOf(place, seatIds);
    if (ears.length === 0) return [];
    const request = {
      plan,
      ears,
      frontDeg: frontOf(project, ears),
      spread: spreadCm / 100,
      bounds: extentOf(place.shape),
    };
    return layOutSpots(request).map((s) => s.position);
  }, [project, seatIds, plan, spreadCm, place]);
  useEffect(() => {
    onPreview(open ? planned : null);
  }, [open, planned, onPreview]);
  const close = tooClose(planned).length;
  const layOut = async () => {
    const done = await change(`spot plan ${plan}`, (p) =>
      withSpotPlan(p, plan, seatIds, spreadCm / 100, () => crypto.randomUUID()),
    );
    if (done) setOpen(false);
  };
  return (
    <Popover opened={open} onChange={setOpen} position="bottom-end" width={330} withArrow shadow="sm">
      <Popover.Target>
        <Button size="compact-xs" variant="default" disabled={disabled} onClick={() => setOpen(!open)}>
          Spot plan
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <section aria-label="Spot plan" style={{ display: 'grid', gap: 9, fontSize: 13 }}>
          <SegmentedControl
            aria-label="Kind of spot plan"
            size="xs"
            data={SPOT_PLANS.map((p) => ({ value: p, label: `${p}, ${SPOTS_IN_PLAN[p]}` }))}
            value={plan}
            onChange={(value) => setPlan(value as SpotPlan)}
          />
          <span className="quiet">
            {SPOTS_IN_PLAN[plan]} spots {WORDS[plan]}, beside, before, behind, above and below the ears.
          </span>
          <Checkbox.Group value={seatIds} onChange={setSeatIds} label="Seats" size="xs">
            <div style={{ display: 'grid', gap: 5, marginTop: 4, maxHeight: 240, overflow: 'auto' }}>
              {choices.map(({ id, name, ears }) => (
                <Checkbox
                  key={id}
                  size="xs"
                  value={id}
                  label={ears.length > 1 ? `${name}, ${ears.length} seats` : name}
                />
              ))}
            </div>
          </Checkbox.Group>
          <div className="row">
            <span>Spread around a head</span>
            <NumberField
              label="Spread"
              value={spreadCm / scale}
              unit={isInches ? 'in' : 'cm'}
              min={10 / scale}
              max={100 / scale}
              step={isInches ? 1 : 5}
              digits={isInches ? 1 : 0}
              width={84}
              onChange={(value) => setSpreadCm(value * scale)}
            />
          </div>
          <span className={close > 0 ? 'attention' : 'quiet'}>
            {seatIds.length === 0
              ? 'Choose a seat at least.'
              : close > 0
                ? `${close} ${close === 1 ? 'pair stands' : 'pairs stand'} so close that the second spot adds little: spread them further.`
                : 'The plan shows where they would be. Spots that have sweeps stay.'}
          </span>
          <Button size="compact-sm" disabled={seatIds.length === 0} onClick={() => void layOut()}>
            Lay out {SPOTS_IN_PLAN[plan]} spots
          </Button>
        </section>
      </Popover.Dropdown>
    </Popover>
  );
}
