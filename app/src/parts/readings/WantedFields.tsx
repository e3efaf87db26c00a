import { ActionIcon, NativeSelect, Switch } from '@mantine/core';
import { FILTER_FAMILIES, SHAPE_KINDS, type ShapeKind, type WantedShape } from '@pebble-hall/core/shapes';
import { IconX } from '../../icons';
import { ordinal, SHAPE_NAMES } from '../../words/shapeWords';

/** A wish to begin with, of a kind, with everything left open. */
export function wantedOf(kind: ShapeKind): WantedShape {
  switch (kind) {
    case 'peaking':
      return { kind };
    case 'low shelf':
    case 'high shelf':
      return { kind, order: null, undershoots: false };
    case 'high-pass':
    case 'low-pass':
      return { kind, family: null, order: null };
    case 'all-pass':
      return { kind, order: null };
  }
}

const ANY = { value: '', label: 'any order' };
const orders = (all: readonly number[]) => [
  ANY,
  ...all.map((n) => ({ value: String(n), label: `${ordinal(n)} order` })),
];
const TWO = orders([1, 2]);
const EIGHT = orders([1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]);

interface Props {
  /** how it is called by those who hear it */
  label: string;
  wanted: WantedShape;
  onChange: (wanted: WantedShape) => void;
  /** null where it is the only one */
  onRemove: (() => void) | null;
}

/** What is looked for: a kind of shape, and what is known of it beforehand. */
export function WantedFields({ label, wanted, onChange, onRemove }: Props) {
  const order = 'order' in wanted && wanted.order !== null ? String(wanted.order) : '';
  return (
    <div style={{ display: 'grid', gap: 4 }}>
      <div style={{ display: 'flex', gap: 4, alignItems: 'center' }}>
        <NativeSelect
          size="xs"
          aria-label={label}
          data={SHAPE_KINDS.map((kind) => ({ value: kind, label: SHAPE_NAMES[kind] }))}
          value={wanted.kind}
          onChange={(e) => onChange(wantedOf(e.currentTarget.value as ShapeKind))}
        />
        {onRemove ? (
          <ActionIcon
            size="sm"
            variant="subtle"
            color="gray"
            aria-label={`Remove ${label.toLowerCase()}`}
            onClick={onRemove}
          >
            <IconX size={14} />
          </ActionIcon>
        ) : null}
      </div>
      {wanted.kind === 'peaking' ? null : (
        <div style={{ display: 'flex', gap: 4, alignItems: 'center' }}>
          {'family' in wanted ? (
            <NativeSelect
              size="xs"
              aria-label={`Family of ${label.toLowerCase()}`}
              data={[{ value: '', label: 'any family' }, ...FILTER_FAMILIES]}
              value={wanted.family ?? ''}
              onChange={(e) =>
                onChange({
                  ...wanted,
                  family: FILTER_FAMILIES.find((f) => f === e.currentTarget.value) ?? null,
                  order: null,
                })
              }
            />
          ) : null}
          <NativeSelect
            size="xs"
            aria-label={`Order of ${label.toLowerCase()}`}
            data={
              !('family' in wanted)
                ? TWO
                : wanted.family === 'Linkwitz-Riley'
                  ? EIGHT.filter((o) => o.value === '' || Number(o.value) % 2 === 0)
                  : EIGHT
            }
            value={order}
            onChange={(e) => {
              const next = e.currentTarget.value === '' ? null : Number(e.currentTarget.value);
              onChange({ ...wanted, order: next } as WantedShape);
            }}
          />
          {'undershoots' in wanted ? (
            <Switch
              size="xs"
              label="may undershoot"
              checked={wanted.undershoots}
              onChange={(e) => onChange({ ...wanted, undershoots: e.currentTarget.checked })}
            />
          ) : null}
        </div>
      )}
    </div>
  );
}
