import { Select } from '@mantine/core';
import { boundsOf } from '@pebble-hall/core/geometry';
import type { Ceiling, Shape } from '@pebble-hall/core/place';
import type { Project } from '@pebble-hall/core/project';
import { LengthField } from '../../parts/LengthField';
import { NumberField } from '../../parts/NumberField';
import { stretched } from './stretched';
import { editPlace } from './usePlan';

const CEILINGS = [
  { value: 'flat', label: 'flat' },
  { value: 'pitched x', label: 'rising to the rear' },
  { value: 'pitched y', label: 'rising to the right' },
  { value: 'ridged x', label: 'ridge from front to rear' },
  { value: 'ridged y', label: 'ridge from left to right' },
];

const ceilingOf = (choice: string, { heightM, ceiling }: Shape): Ceiling => {
  const [kind, along] = choice.split(' ');
  if (kind === 'flat') return { kind };
  const highM = ceiling.kind === 'flat' ? Math.round(15 * heightM) / 10 : ceiling.highM;
  return { kind: kind as 'pitched' | 'ridged', along: along as 'x' | 'y', highM };
};

/** The room by three numbers, its ceiling, and how its floor rises. Corners are dragged in the drawing, or typed in the table. */
export function ShapeCard({ project }: { project: Project }) {
  const { shape, lengthUnit: unit } = project.place;
  const { least, most } = boundsOf(shape.outline);
  const set = (label: string, change: (s: Shape) => Shape) =>
    void editPlace(label, (p) => ({ ...p, shape: change(p.shape) }));
  const { ceiling } = shape;
  return (
    <section className="card" aria-label="Size">
      <h2>
        Size <small>{shape.outline.length === 4 ? '' : `${shape.outline.length} corners`}</small>
      </h2>
      <div className="row compact-fields" style={{ gap: 5 }}>
        {(['x', 'y'] as const).map((axis) => (
          <LengthField
            key={axis}
            label={axis === 'x' ? 'Length' : 'Width'}
            value={most[axis] - least[axis]}
            unit={unit}
            min={0.5}
            max={1000}
            width={80}
            onChange={(to) => set(axis === 'x' ? 'length' : 'width', (s) => stretched(s, axis, to))}
          />
        ))}
        <LengthField
          label="Height of the walls"
          value={shape.heightM}
          unit={unit}
          min={0.5}
          max={200}
          width={74}
          onChange={(heightM) => set('height', (s) => ({ ...s, heightM }))}
        />
      </div>
      <span className="quiet">Length from the front, width, height of the walls.</span>
      {shape.isEnclosed ? (
        <div className="row">
          <Select
            aria-label="Ceiling"
            size="xs"
            style={{ flex: 1 }}
            allowDeselect={false}
            data={CEILINGS}
            value={ceiling.kind === 'flat' ? 'flat' : `${ceiling.kind} ${ceiling.along}`}
            onChange={(v) => v && set('ceiling', (s) => ({ ...s, ceiling: ceilingOf(v, s) }))}
          />
          {ceiling.kind === 'flat' ? (
            <span>ceiling</span>
          ) : (
            <LengthField
              label="Highest point of the ceiling"
              value={ceiling.highM}
              unit={unit}
              min={0.5}
              max={200}
              onChange={(highM) => set('highest point', (s) => ({ ...s, ceiling: { ...ceiling, highM } }))}
            />
          )}
        </div>
      ) : null}
      <div className="row">
        <span>Floor rises to the rear</span>
        <NumberField
          label="Rise of the floor"
          value={100 * shape.floorRise}
          unit="%"
          min={-50}
          max={50}
          step={0.5}
          width={84}
          onChange={(percent) => set('rise of the floor', (s) => ({ ...s, floorRise: percent / 100 }))}
        />
      </div>
    </section>
  );
}
