import { ActionIcon, Button, NativeSelect } from '@mantine/core';
import {
  FILTER_FAMILIES,
  octavesOfQ,
  qOfOctaves,
  SHAPE_KINDS,
  undershootDb,
  type FilterFamily,
  type Shape,
  type ShapeKind,
} from '@pebble-hall/core/shapes';
import { IconX } from '../../../icons';
import { NumberField } from '../../../parts/NumberField';
import { startingShape } from './startingShape';
import { ordinal, SHAPE_NAMES } from '../../../words/shapeWords';

interface Props {
  shapes: readonly Shape[];
  onChange: (shapes: Shape[]) => void;
  /** whether none may be left */
  mayBeEmpty: boolean;
}

const MOST = 24;

/** Shapes by their figures, typed at any precision. */
export function ShapeFields({ shapes, onChange, mayBeEmpty }: Props) {
  const set = (i: number, shape: Shape) => onChange(shapes.map((s, k) => (k === i ? shape : s)));
  return (
    <div style={{ display: 'grid', gap: 6 }}>
      {shapes.map((shape, i) => (
        <div
          key={i}
          style={{ display: 'grid', gap: 4, borderTop: '1px solid var(--line-soft)', paddingTop: 5 }}
        >
          <div className="row" style={{ gap: 4 }}>
            <NativeSelect
              size="xs"
              aria-label={`Shape ${i + 1}`}
              style={{ flex: 1 }}
              data={SHAPE_KINDS.map((kind) => ({ value: kind, label: SHAPE_NAMES[kind] }))}
              value={shape.kind}
              onChange={(e) => set(i, startingShape(e.currentTarget.value as ShapeKind, shape.hz))}
            />
            <NumberField
              label={`Frequency of shape ${i + 1}`}
              value={shape.hz}
              unit="Hz"
              digits={2}
              min={1}
              max={100_000}
              step={shape.hz >= 500 ? 10 : 1}
              width={104}
              onChange={(hz) => set(i, { ...shape, hz })}
            />
            {shapes.length > 1 || mayBeEmpty ? (
              <ActionIcon
                size="sm"
                variant="subtle"
                color="gray"
                aria-label={`Remove shape ${i + 1}`}
                onClick={() => onChange(shapes.filter((_, k) => k !== i))}
              >
                <IconX size={14} />
              </ActionIcon>
            ) : null}
          </div>
          <div className="row" style={{ gap: 4, justifyContent: 'flex-start', flexWrap: 'wrap' }}>
            <Figures label={`shape ${i + 1}`} shape={shape} onChange={(next) => set(i, next)} />
          </div>
        </div>
      ))}
      <Button
        size="compact-xs"
        variant="default"
        disabled={shapes.length >= MOST}
        onClick={() => onChange([...shapes, startingShape('peaking')])}
      >
        Add a shape
      </Button>
    </div>
  );
}

interface FiguresProps {
  label: string;
  shape: Shape;
  onChange: (shape: Shape) => void;
}

function Figures({ label, shape, onChange }: FiguresProps) {
  const undershoot = undershootDb(shape);
  return (
    <>
      {'gainDb' in shape ? (
        <NumberField
          label={`Gain of ${label}`}
          value={shape.gainDb}
          unit="dB"
          digits={2}
          min={-60}
          max={60}
          step={0.5}
          width={88}
          onChange={(gainDb) => onChange({ ...shape, gainDb })}
        />
      ) : null}
      {'family' in shape ? (
        <NativeSelect
          size="xs"
          aria-label={`Family of ${label}`}
          data={[...FILTER_FAMILIES]}
          value={shape.family}
          onChange={(e) => {
            const family = e.currentTarget.value as FilterFamily;
            const order = family === 'Linkwitz-Riley' ? 2 * Math.ceil(shape.order / 2) : shape.order;
            onChange({ ...shape, family, order });
          }}
        />
      ) : null}
      {'order' in shape ? (
        <NativeSelect
          size="xs"
          aria-label={`Order of ${label}`}
          data={ordersOf(shape).map((n) => ({ value: String(n), label: `${ordinal(n)} order` }))}
          value={String(shape.order)}
          onChange={(e) => {
            const order = Number(e.currentTarget.value);
            if ('family' in shape) onChange({ ...shape, order });
            else onChange({ ...shape, order: order as 1 | 2, q: order === 1 ? null : 0.7 });
          }}
        />
      ) : null}
      {'q' in shape && shape.q !== null ? (
        <NumberField
          label={`Q of ${label}`}
          value={shape.q}
          unit="Q"
          digits={3}
          min={0.05}
          max={200}
          step={0.1}
          width={84}
          onChange={(q) => onChange({ ...shape, q } as Shape)}
        />
      ) : null}
      {shape.kind === 'peaking' ? (
        <NumberField
          label={`Bandwidth of ${label}`}
          value={octavesOfQ(shape.q)}
          unit="oct"
          digits={3}
          min={0.01}
          max={10}
          step={0.1}
          width={92}
          onChange={(octaves) => onChange({ ...shape, q: qOfOctaves(octaves) })}
        />
      ) : null}
      {undershoot > 0.05 ? <small className="quiet">undershoots by {undershoot.toFixed(1)} dB</small> : null}
    </>
  );
}

const ordersOf = (shape: Extract<Shape, { order: number }>): number[] =>
  !('family' in shape)
    ? [1, 2]
    : Array.from({ length: 12 }, (_, i) => i + 1).filter(
        (n) => shape.family !== 'Linkwitz-Riley' || n % 2 === 0,
      );
