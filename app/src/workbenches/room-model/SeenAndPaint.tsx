import { NativeSelect, SegmentedControl } from '@mantine/core';
import type { Place } from '@pebble-hall/core/project';
import { materialChoices, OWN_NUMBERS } from './materialChoices';

export const SEEN_FROM = ['Above', '3D'] as const;
export type SeenFrom = (typeof SEEN_FROM)[number];

interface SeenProps {
  seen: SeenFrom;
  onSeen: (seen: SeenFrom) => void;
}

/** From where a room is seen. */
export const SeenFromControl = ({ seen, onSeen }: SeenProps) => (
  <SegmentedControl
    size="xs"
    aria-label="Seen from"
    data={[...SEEN_FROM]}
    value={seen}
    onChange={(v) => onSeen(v as SeenFrom)}
  />
);

interface Props extends SeenProps {
  place: Pick<Place, 'materials'>;
  /** the material that a click on a surface makes it of; null where a click chooses alone */
  paint: string | null;
  onPaint: (material: string | null) => void;
}

/** Over the drawing: from where it is seen, and what a click on a surface does. */
export function SeenAndPaint({ place, seen, onSeen, paint, onPaint }: Props) {
  const choices = materialChoices(place.materials).filter((c) => !('value' in c) || c.value !== OWN_NUMBERS);
  return (
    <div style={{ position: 'absolute', right: 10, top: 8, display: 'flex', gap: 6 }}>
      <NativeSelect
        size="xs"
        aria-label="What a click does"
        data={[{ value: '', label: 'A click chooses' }, ...choices]}
        value={paint ?? ''}
        w={150}
        onChange={(e) => onPaint(e.currentTarget.value || null)}
      />
      <SeenFromControl seen={seen} onSeen={onSeen} />
    </div>
  );
}
