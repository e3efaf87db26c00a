import { Button, Modal, SegmentedControl, Select, TextInput } from '@mantine/core';
import { LAYOUTS } from '@pebble-hall/core/layouts';
import {
  MAINS_LAYOUT,
  newProject,
  NO_LAYOUT,
  PLACE_KINDS,
  USUAL_SIZE,
  type NewProject,
  type PlaceKind,
} from '@pebble-hall/core/project';
import { useState } from 'react';
import { PlaceDrawing } from '../drawing';
import { LengthField } from '../parts/LengthField';
import { notifyProblem } from '../services/notify';
import { openProjectHere, repository, sentenceOf } from '../store';
import { stepTo } from './navigation';

const LAYOUT_OF: Record<PlaceKind, string> = {
  'listening room': '5.1',
  'control room': 'two',
  hall: MAINS_LAYOUT.id,
  'open air': MAINS_LAYOUT.id,
};
const NAMES: Record<PlaceKind, string> = {
  'listening room': 'New listening room',
  'control room': 'New control room',
  hall: 'New hall',
  'open air': 'New open-air place',
};
const LAYOUT_CHOICES = [...LAYOUTS, MAINS_LAYOUT, NO_LAYOUT];

const first = (kind: PlaceKind): NewProject => ({
  name: NAMES[kind],
  kind,
  size: USUAL_SIZE[kind],
  layoutId: LAYOUT_OF[kind],
  rig: 'simulated',
});

/** A new project, with no more asked than it needs: what kind of place, how large, which channels, what measures. */
export function NewProjectDialog({ opened, onClose }: { opened: boolean; onClose: () => void }) {
  const [asked, setAsked] = useState<NewProject>(() => first('listening room'));
  const set = (next: Partial<NewProject>) => setAsked((now) => ({ ...now, ...next }));
  const project = newProject('new', asked);
  const source = LAYOUT_CHOICES.find((l) => l.id === asked.layoutId)?.source ?? '';
  const make = async () => {
    try {
      const made = newProject(crypto.randomUUID(), {
        ...asked,
        name: asked.name.trim() || NAMES[asked.kind],
      });
      await openProjectHere(await repository().add(made));
      onClose();
      setAsked(first('listening room'));
      // with real devices one connects first; a rehearsal begins with the plan
      stepTo(asked.rig === 'simulated' ? '/plan' : '/rig#connect');
    } catch (error) {
      notifyProblem(`The project was not made: ${sentenceOf(error)}`);
    }
  };
  return (
    <Modal opened={opened} onClose={onClose} title="New project" size={860} centered>
      <div style={{ display: 'grid', gridTemplateColumns: '370px minmax(0, 1fr)', gap: 20 }}>
        <div style={{ display: 'grid', gap: 12, alignContent: 'start' }}>
          <SegmentedControl
            aria-label="Kind of place"
            size="xs"
            data={[...PLACE_KINDS]}
            value={asked.kind}
            onChange={(kind) => setAsked((now) => ({ ...first(kind as PlaceKind), rig: now.rig }))}
          />
          <TextInput
            label="Name"
            size="xs"
            maxLength={60}
            value={asked.name}
            onChange={(e) => set({ name: e.currentTarget.value })}
          />
          <div style={{ display: 'flex', gap: 8 }}>
            {(['x', 'y', 'z'] as const).map((axis) => (
              <label key={axis} style={{ display: 'grid', gap: 3, fontSize: 13 }}>
                {{ x: 'Length', y: 'Width', z: 'Height' }[axis]}
                <LengthField
                  label={{ x: 'Length', y: 'Width', z: 'Height' }[axis]}
                  value={asked.size[axis]}
                  unit="m"
                  min={1.5}
                  max={axis === 'z' ? 100 : 500}
                  width={110}
                  onChange={(v) => set({ size: { ...asked.size, [axis]: v } })}
                />
              </label>
            ))}
          </div>
          <Select
            label="Layout of the channels"
            size="xs"
            allowDeselect={false}
            data={LAYOUT_CHOICES.map((l) => ({ value: l.id, label: l.name }))}
            value={asked.layoutId}
            onChange={(layoutId) => layoutId && set({ layoutId })}
            description={source}
          />
          <div style={{ display: 'grid', gap: 4, fontSize: 13 }}>
            <span>Measure with</span>
            <SegmentedControl
              aria-label="Measure with"
              size="xs"
              data={[
                { value: 'simulated', label: 'the simulated rig, to rehearse' },
                { value: 'web audio', label: 'devices of this computer' },
              ]}
              value={asked.rig}
              onChange={(rig) => set({ rig: rig as NewProject['rig'] })}
            />
          </div>
          <small className="quiet">All of it can be changed later.</small>
          <div>
            <Button onClick={() => void make()}>Make it</Button>
          </div>
        </div>
        <div className="plot" style={{ padding: 8, height: 400 }}>
          <PlaceDrawing place={project.place} stateOf={() => 'empty'} />
        </div>
      </div>
    </Modal>
  );
}
