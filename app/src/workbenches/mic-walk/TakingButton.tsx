import { Button, Popover, Select } from '@mantine/core';
import { type Project, type RigSettings, fittedOf } from '@pebble-hall/core/project';
import { useState } from 'react';
import { NumberField } from '../../parts/NumberField';
import type { Change } from '../../services/changeProject';
import { handsFree, keepHandsFree, LONGEST_COUNTDOWN_S, type HandsFree } from '../../services/prompts';
import { roleOf, withRole } from './microphoneRoles';

const PROMPTS = [
  { value: 'silent', label: 'no sound' },
  { value: 'beeps', label: 'beeps' },
  { value: 'spoken', label: 'spoken words' },
];
const DEFAULT_CROSSOVER_HZ = 1000;

/** How sweeps are taken: time to walk, prompts, repeats, the reference click, and what each microphone does. */
export function TakingButton({
  project,
  change,
  disabled,
}: {
  project: Project;
  change: Change;
  disabled: boolean;
}) {
  const [hands, setHands] = useState<HandsFree>(handsFree);
  const keep = (next: HandsFree) => {
    keepHandsFree(next);
    setHands(next);
  };
  const { rig } = project;
  const set = (label: string, next: Partial<RigSettings>) =>
    void change(label, (p) => ({ ...p, rig: { ...p.rig, ...next } }));
  const clicks = fittedOf(project).filter((l) => l.role === 'full range');
  const named = (id: string) => {
    const m = rig.microphones.find((other) => other.id === id);
    return m ? `${m.make} ${m.serial}`.trim() : '';
  };
  return (
    <Popover position="bottom-end" width={410} shadow="sm" withArrow>
      <Popover.Target>
        <Button size="compact-xs" variant="default" disabled={disabled}>
          How it is taken
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <section aria-label="How it is taken" style={{ display: 'grid', gap: 9, fontSize: 13 }}>
          <div className="row">
            <span>Time to walk and hold still</span>
            <NumberField
              label="Countdown"
              value={hands.countdownS}
              unit="s"
              min={0}
              max={LONGEST_COUNTDOWN_S}
              step={1}
              digits={0}
              width={84}
              onChange={(countdownS) => keep({ ...hands, countdownS })}
            />
          </div>
          <div className="row">
            <span>Prompts</span>
            <Select
              aria-label="Prompts"
              size="xs"
              w={150}
              allowDeselect={false}
              comboboxProps={{ withinPortal: false }}
              data={PROMPTS}
              value={hands.prompts}
              onChange={(prompts) => prompts && keep({ ...hands, prompts: prompts as HandsFree['prompts'] })}
            />
          </div>
          <div className="row">
            <span>Sweeps averaged at each spot</span>
            <NumberField
              label="Sweeps averaged"
              value={rig.repeats}
              unit=""
              min={1}
              max={16}
              step={1}
              digits={0}
              width={84}
              onChange={(repeats) => set(`${repeats} sweeps averaged`, { repeats })}
            />
          </div>
          <div className="row">
            <span>A click after each sweep, from</span>
            <Select
              aria-label="Reference click"
              size="xs"
              w={150}
              allowDeselect={false}
              comboboxProps={{ withinPortal: false }}
              data={[
                { value: 'none', label: 'nobody' },
                ...clicks.map((l) => ({ value: l.id, label: l.name })),
              ]}
              value={rig.referenceFrom ?? 'none'}
              onChange={(id) => id && set('reference click', { referenceFrom: id === 'none' ? null : id })}
            />
          </div>
          <span className="quiet">
            It tells whether the stand was knocked between two channels, by 5 cm or more.
          </span>
          <b>Microphones</b>
          {rig.microphones.map((m) => {
            const others = rig.microphones.filter((o) => o.id !== m.id);
            const pair = rig.pairs.find((p) => p.floorId === m.id);
            return (
              <div key={m.id} style={{ display: 'grid', gap: 4 }}>
                <div className="row">
                  <span>
                    {named(m.id)} <small className="quiet">input {m.input}</small>
                  </span>
                  {m.id === rig.microphoneId ? (
                    <span className="quiet">takes the spot</span>
                  ) : (
                    <Select
                      aria-label={`What ${named(m.id)} does`}
                      size="xs"
                      w={210}
                      allowDeselect={false}
                      comboboxProps={{ withinPortal: false }}
                      data={[
                        { value: 'away', label: 'not in use' },
                        { value: 'along', label: 'takes a spot of its own' },
                        ...others
                          .filter((o) => !rig.pairs.some((p) => p.floorId === o.id))
                          .map((o) => ({
                            value: `floor ${o.id}`,
                            label: `on the floor below ${named(o.id)}`,
                          })),
                      ]}
                      value={roleOf(rig, m.id)}
                      onChange={(role) =>
                        role &&
                        set(`what ${named(m.id)} does`, withRole(rig, m.id, role, DEFAULT_CROSSOVER_HZ))
                      }
                    />
                  )}
                </div>
                {pair ? (
                  <div className="row">
                    <span>The floor&rsquo;s curve counts below</span>
                    <NumberField
                      label="Crossover between floor and ear"
                      value={pair.crossoverHz}
                      unit="Hz"
                      min={100}
                      max={4000}
                      step={50}
                      digits={0}
                      width={98}
                      onChange={(crossoverHz) =>
                        set('crossover between floor and ear', {
                          pairs: rig.pairs.map((p) => (p === pair ? { ...p, crossoverHz } : p)),
                        })
                      }
                    />
                  </div>
                ) : null}
              </div>
            );
          })}
          <a className="linkish" href="/rig#microphones">
            {rig.microphones.length === 1 ? 'Add a microphone in Rig' : 'Microphones, in Rig'}
          </a>
        </section>
      </Popover.Dropdown>
    </Popover>
  );
}
