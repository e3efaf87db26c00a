import { Button, Checkbox, Progress, Select, TextInput } from '@mantine/core';
import { theProcessor } from '../../../services/theProcessor';
import { variantOf, type MemoryLoad, type Project, type VerifiedStage } from '@pebble-hall/core/project';
import { useState } from 'react';
import { foreignIn } from '../../../services/holding';
import { outcomeWords } from '../../../services/pendingTransfer';
import { silence } from '../../../services/running';
import type { Change } from '../../../services/changeProject';
import type { useHandOver } from '../useHandOver';
import { MeasureAgain } from '../verify/MeasureAgain';

interface LoadCardProps {
  project: Project;
  change: Change;
  hand: ReturnType<typeof useHandOver>;
  /** the load that is looked at */
  load: MemoryLoad | null;
  stage: VerifiedStage;
  /** whether there is anything to load */
  designable: boolean;
}

/** Loading a variant into a memory, going on with what was broken off, reading back, measuring again. */
export function LoadCard({ project, change, hand, load, stage, designable }: LoadCardProps) {
  const [letter, setLetter] = useState<string>('B');
  const [name, setName] = useState('Loft evening');
  const [breaks, setBreaks] = useState(false);
  /** the memory that is asked about before it is overwritten */
  const [asked, setAsked] = useState<string | null>(null);
  const variant = variantOf(project);
  const pending = project.pendingLoad;
  const transfer = hand.state?.transfer ?? null;
  const foreign = foreignIn(project, hand.state, letter);
  const waits = hand.work === null && (pending !== null || transfer !== null);
  return (
    <section className="card" aria-label="Load">
      <h2>
        Load
        <span style={{ display: 'flex', alignItems: 'center', gap: 8 }}>
          {project.variants.length > 1 ? (
            <Select
              aria-label="Variant to load"
              size="xs"
              w={170}
              allowDeselect={false}
              disabled={hand.work !== null || waits}
              data={project.variants.map((v) => ({ value: v.id, label: v.name }))}
              value={variant.id}
              onChange={(v) =>
                v &&
                void change(`editing variant ${project.variants.find((x) => x.id === v)!.name}`, (p) => ({
                  ...p,
                  variantId: v,
                }))
              }
            />
          ) : (
            <small>{variant.name}</small>
          )}
          <small>into Skerry 12, simulated</small>
        </span>
      </h2>
      {hand.work ? (
        <>
          <div className="row">
            <span>{hand.work.what}</span>
            <Button size="compact-sm" variant="default" onClick={silence}>
              {hand.work.pauses ? 'Pause' : 'Cancel'}
            </Button>
          </div>
          <Progress value={100 * hand.work.share} aria-label="Progress" />
          <span className="quiet">The old contents stay until the new ones are complete and verified.</span>
        </>
      ) : waits ? (
        <>
          <span className="attention">
            A transfer into memory {pending?.load.letter ?? transfer?.letter} waits
            {transfer
              ? `, ${Math.round((100 * transfer.received) / Math.max(1, transfer.bytes))} % is there`
              : ''}
            . {hand.outcome ? outcomeWords(pending?.load.letter ?? '', hand.outcome) : ''}
          </span>
          <div style={{ display: 'flex', gap: 8 }}>
            {pending && transfer?.id === pending.transferId ? (
              <Button size="compact-md" onClick={() => void hand.resume(pending)}>
                Go on
              </Button>
            ) : (
              <span className="quiet">It cannot be gone on with from here.</span>
            )}
            <Button size="compact-md" variant="default" onClick={() => void hand.abandon(pending)}>
              Give it up
            </Button>
          </div>
        </>
      ) : (
        <>
          <div className="row" style={{ justifyContent: 'flex-start' }}>
            <Select
              aria-label="Memory"
              size="xs"
              w={66}
              allowDeselect={false}
              data={[...theProcessor().profile.memories]}
              value={letter}
              onChange={(v) => v && setLetter(v)}
            />
            <TextInput
              aria-label="Name of the memory"
              size="xs"
              style={{ flex: 1 }}
              maxLength={40}
              value={name}
              onChange={(e) => setName(e.currentTarget.value)}
            />
            <Button
              size="compact-md"
              disabled={!designable}
              onClick={() => (foreign ? setAsked(letter) : void hand.load(letter, name, breaks))}
            >
              Load memory {letter}
            </Button>
          </div>
          {foreign && asked === letter ? (
            <div role="alertdialog" aria-label="Overwrite the memory" className="row">
              <span className="attention">
                Memory {letter} holds “{foreign}”, which is not of this project. Overwrite it?
              </span>
              <span style={{ display: 'flex', gap: 6, flexShrink: 0 }}>
                <Button
                  size="compact-sm"
                  onClick={() => {
                    setAsked(null);
                    void hand.load(letter, name, breaks);
                  }}
                >
                  Overwrite
                </Button>
                <Button size="compact-sm" variant="default" onClick={() => setAsked(null)}>
                  Keep it
                </Button>
              </span>
            </div>
          ) : null}
          <Checkbox
            size="xs"
            label="For practice: the cable breaks half-way"
            checked={breaks}
            onChange={(e) => setBreaks(e.currentTarget.checked)}
          />
          <div style={{ display: 'flex', gap: 8 }}>
            <Button
              size="compact-md"
              variant="default"
              disabled={!load}
              onClick={() => void hand.readBackLoad(load!)}
            >
              Read back
            </Button>
            <MeasureAgain project={project} hand={hand} load={load} stage={stage} />
          </div>
        </>
      )}
    </section>
  );
}
