import { Button, Select } from '@mantine/core';
import { LAYOUTS } from '@pebble-hall/core/layouts';
import type { Project } from '@pebble-hall/core/project';
import { layoutOf, layoutOffsets, offDeg, offWords, withLayout } from './layoutOffsets';
import { editPlace } from './usePlan';

/** Which layout the loudspeakers follow, and how far each is off it. Nothing is forbidden. */
export function LayoutCard({ project }: { project: Project }) {
  const { place } = project;
  const layout = layoutOf(place);
  const off = layoutOffsets(place)
    .filter((o) => offDeg(o) >= 0.5)
    .sort((a, b) => offDeg(b) - offDeg(a));
  return (
    <section className="card" aria-label="Layout" style={{ overflow: 'auto' }}>
      <h2>
        Layout <small>{layout?.source ?? ''}</small>
      </h2>
      <div className="row">
        <Select
          aria-label="Layout of the channels"
          size="xs"
          style={{ flex: 1 }}
          allowDeselect={false}
          data={[
            { value: 'none', label: 'none, placed freely' },
            ...LAYOUTS.map((l) => ({ value: l.id, label: l.name })),
          ]}
          value={layout?.id ?? 'none'}
          onChange={(id) =>
            id &&
            void editPlace(id === 'none' ? 'no layout' : `layout ${id}`, (p) =>
              withLayout(p, id === 'none' ? null : id, () => crypto.randomUUID()),
            )
          }
        />
        {layout && off.length > 0 ? (
          <Button
            size="compact-sm"
            variant="default"
            onClick={() =>
              void editPlace('loudspeakers into the layout', (p) =>
                withLayout(p, layout.id, () => crypto.randomUUID()),
              )
            }
          >
            Move into it
          </Button>
        ) : null}
      </div>
      {!layout ? (
        <span className="quiet">
          Choose one, and the plan says by how many degrees each loudspeaker is off it.
        </span>
      ) : off.length === 0 ? (
        <span>Every loudspeaker stands where it asks for, seen from the home spot.</span>
      ) : (
        off.slice(0, 3).map((o) => (
          <div className="row" key={o.loudspeaker.id}>
            <span>{o.loudspeaker.name}</span>
            <span style={{ textAlign: 'right' }}>{offWords(o)}</span>
          </div>
        ))
      )}
      {off.length > 3 ? <small className="quiet">and {off.length - 3} more, by less</small> : null}
    </section>
  );
}
