import { Button } from '@mantine/core';
import { seatsOf, type AudienceArea } from '@pebble-hall/core/place';
import type { Project } from '@pebble-hall/core/project';
import { LengthField } from '../../parts/LengthField';
import { NumberField } from '../../parts/NumberField';
import { withCornerAfter, withoutCorner } from './corners';
import { NameField } from './NameField';
import { editPlace } from './usePlan';

/** An audience area: its rows, its rake, its corners. */
export function AreaCards({ project, area }: { project: Project; area: AudienceArea }) {
  const { lengthUnit: unit, shape } = project.place;
  const set = (label: string, next: Partial<AudienceArea>) =>
    void editPlace(label, (p) => ({
      ...p,
      audience: p.audience.map((a) => (a.id === area.id ? { ...a, ...next } : a)),
    }));
  const length = (
    label: string,
    key: 'rowM' | 'seatM' | 'floorM' | 'riseM' | 'earM',
    min: number,
    max: number,
  ) => (
    <div className="row">
      <span>{label}</span>
      <LengthField
        label={label}
        value={area[key]}
        unit={unit}
        min={min}
        max={max}
        step={0.05}
        onChange={(v) => set(label.toLowerCase(), { [key]: v })}
      />
    </div>
  );
  const seats = count(area, shape);
  return (
    <>
      <section className="card" aria-label="Audience area">
        <h2>
          <NameField
            label="Name of the area"
            value={area.name}
            onChange={(name) => set(`${area.name} is ${name} now`, { name })}
          />
          <small>{seats === null ? 'too many seats' : `${seats} seats`}</small>
        </h2>
        {length('From row to row', 'rowM', 0.2, 100)}
        {length('From seat to seat', 'seatM', 0.2, 100)}
        <div className="row">
          <span>They look to</span>
          <NumberField
            label="Direction in which they look"
            value={area.facingDeg}
            unit="°"
            min={-360}
            max={360}
            step={5}
            width={84}
            onChange={(facingDeg) => set('direction of the seats', { facingDeg })}
          />
        </div>
      </section>
      <section className="card" aria-label="Rake">
        <h2>
          Rake <small>over the floor of the room</small>
        </h2>
        {length('Floor of the first row', 'floorM', -50, 100)}
        {length('Each row higher by', 'riseM', -5, 5)}
        {length('Ears over the floor', 'earM', 0, 10)}
      </section>
      <section className="card" aria-label="Corners" style={{ gridColumn: 'span 2', overflow: 'auto' }}>
        <h2>
          Corners{' '}
          <Button
            size="compact-xs"
            variant="default"
            onClick={() =>
              void editPlace('a new corner', (p) =>
                withCornerAfter(p, `${area.id} ${area.outline.length - 1}`),
              )
            }
          >
            One more
          </Button>
        </h2>
        <div
          style={{
            display: 'grid',
            gridTemplateColumns: 'repeat(2, auto)',
            gap: '3px 16px',
            justifyContent: 'start',
          }}
        >
          {area.outline.map((c, i) => (
            <div className="row compact-fields" key={i} style={{ gap: 5 }}>
              <span className="mono">{i + 1}</span>
              {(['x', 'y'] as const).map((axis) => (
                <LengthField
                  key={axis}
                  label={`Corner ${i + 1}, ${axis === 'x' ? 'from the front' : 'from the left'}`}
                  value={c[axis]}
                  unit={unit}
                  width={74}
                  onChange={(v) =>
                    set(`corner ${i + 1}`, {
                      outline: area.outline.map((o, k) => (k === i ? { ...o, [axis]: v } : o)),
                    })
                  }
                />
              ))}
              <button
                className="linkish"
                aria-label={`Remove corner ${i + 1}`}
                disabled={area.outline.length <= 3}
                onClick={() => void editPlace('a corner less', (p) => withoutCorner(p, `${area.id} ${i}`))}
              >
                ×
              </button>
            </div>
          ))}
        </div>
      </section>
    </>
  );
}

function count(area: AudienceArea, shape: Project['place']['shape']): number | null {
  try {
    return seatsOf(area, shape).length;
  } catch {
    return null;
  }
}
