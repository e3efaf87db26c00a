import { Button, Checkbox, Popover, SegmentedControl } from '@mantine/core';
import { layOutSpots, SPOT_PLANS, SPOTS_IN_PLAN, tooClose, type SpotPlan } from '@pebble-hall/core/spots';
import type { Point } from '@pebble-hall/core/geometry';
import type { Project } from '@pebble-hall/core/project';
import { useEffect, useMemo, useState } from 'react';
import { NumberField } from '../../parts/NumberField';
import type { Change } from '../../services/changeProject';
import { frontOf, withSpotPlan } from './planSpots';

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
  const { seats, size } = project.place;
  const [open, setOpen] = useState(false);
  const [plan, setPlan] = useState<SpotPlan>('Row');
  const [seatIds, setSeatIds] = useState<string[]>(() => seats.slice(0, 3).map((s) => s.id));
  const [spreadCm, setSpreadCm] = useState(30);
  const [inches, setInches] = useState(() => localStorage.getItem('pebble-hall.length') === 'ft');
  const scale = inches ? CM_PER_INCH : 1;
  const planned = useMemo(() => {
    const ears = seats.filter((s) => seatIds.includes(s.id)).map((s) => s.position);
    if (ears.length === 0) return [];
    const request = { plan, ears, frontDeg: frontOf(project, ears), spread: spreadCm / 100, size };
    return layOutSpots(request).map((s) => s.position);
  }, [project, seats, seatIds, plan, spreadCm, size]);
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
            <div style={{ display: 'grid', gap: 5, marginTop: 4 }}>
              {seats.map((s) => (
                <Checkbox key={s.id} size="xs" value={s.id} label={s.name} />
              ))}
            </div>
          </Checkbox.Group>
          <div className="row">
            <span>Spread around a head</span>
            <NumberField
              label="Spread"
              value={spreadCm / scale}
              unit={inches ? 'in' : 'cm'}
              min={10 / scale}
              max={100 / scale}
              step={inches ? 1 : 5}
              digits={inches ? 1 : 0}
              width={84}
              onChange={(value) => setSpreadCm(value * scale)}
            />
            <button className="linkish" onClick={() => setInches(!inches)}>
              {inches ? 'in cm' : 'in inches'}
            </button>
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
