import { Button, Select } from '@mantine/core';
import { PROFILES, type ProcessorProfile } from '@pebble-hall/core/processing';
import type { Project } from '@pebble-hall/core/project';
import { useState } from 'react';
import { changeProject } from '../../services/changeProject';
import { theProcessor } from '../../services/theProcessor';
import { ProfileDialog } from './ProfileDialog';
import { useProfiles } from './useProfiles';

const STAND_IN = 'stand-in';

/** Which processor is in the chain, and what it can do. Correct and Hand over keep to that. */
export function ProfileCard({ project }: { project: Project }) {
  const { processor, rig } = project;
  const own = useProfiles();
  const [edited, setEdited] = useState<ProcessorProfile | null>(null);
  const { profile } = theProcessor();
  const offered = [...PROFILES, ...own.list.filter((o) => !PROFILES.some((p) => p.model === o.model))];
  const known =
    processor.adapter === 'files only' && !offered.some((p) => p.model === processor.profile.model)
      ? [...offered, processor.profile]
      : offered;
  const isReal = rig.kind === 'web audio';
  const value = profile.memories.length > 0 ? STAND_IN : profile.model;
  const choose = (next: ProcessorProfile | null) =>
    void changeProject(next ? `processor ${next.model}` : 'the simulated processor', (p) => ({
      ...p,
      processor: next
        ? { adapter: 'files only', unit: p.processor.unit, profile: next, inPlaceId: null }
        : { adapter: 'stand-in', unit: p.processor.unit },
    }));
  return (
    <section className="card" aria-label="Processor" style={{ overflow: 'auto' }}>
      <h2>
        Processor <small>{profile.rate / 1000} kHz</small>
      </h2>
      <Select
        aria-label="Processor in the chain"
        size="xs"
        allowDeselect={false}
        data={[
          { value: STAND_IN, label: 'Skerry 12, simulated', disabled: isReal },
          ...known.map((p) => ({ value: p.model, label: p.model })),
        ]}
        value={value}
        onChange={(v) => v && choose(v === STAND_IN ? null : (known.find((p) => p.model === v) ?? null))}
      />
      <span className="quiet">
        {[
          `${profile.outputs} outputs`,
          profile.mostTaps > 0 ? `FIR of ${profile.mostTaps} taps` : 'no FIR',
          profile.mostSections > 0 ? `${profile.mostSections} sections` : 'no sections',
          `delay up to ${profile.mostDelayMs} ms`,
          profile.bassManagement ? 'bass management' : 'no bass management',
          profile.memories.length > 0
            ? `memories ${profile.memories[0]} to ${profile.memories.at(-1)}`
            : 'reached by files',
        ].join(', ')}
        {isReal ? '. Real devices play through it, so the simulated one is not offered.' : '.'}
      </span>
      <div>
        <Button size="compact-sm" variant="default" onClick={() => setEdited(profile)}>
          A profile of your own
        </Button>
      </div>
      {edited ? (
        <ProfileDialog
          begin={edited}
          own={own}
          onUse={(next) => {
            choose(next);
            setEdited(null);
          }}
          onClose={() => setEdited(null)}
        />
      ) : null}
    </section>
  );
}
