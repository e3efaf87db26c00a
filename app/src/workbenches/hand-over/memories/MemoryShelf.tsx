import { ActionIcon, Button, Menu, TextInput } from '@mantine/core';
import { theProcessor } from '../../../services/theProcessor';
import { variantOf, type MemoryLoad, type Project, designKey } from '@pebble-hall/core/project';
import { type MemorySummary, type ProcessorState } from '@pebble-hall/core/processing';
import { IconDots } from '../../../icons';
import { useState } from 'react';
import { sameFilters } from '../../../services/holding';

interface MemoryShelfProps {
  project: Project;
  state: ProcessorState | null;
  busy: boolean;
  /** the load that is looked at */
  shownId: string | null;
  onShow: (load: MemoryLoad) => void;
  onRecall: (letter: string) => void;
  onRename: (letter: string, name: string) => void;
  onCopy: (from: string, to: string) => void;
}

/** Against the variant that a memory was made of: what it is, and whether it has changed since. */
function standing(
  project: Project,
  load: MemoryLoad | undefined,
  memory: Pick<MemorySummary, 'letter' | 'checksum' | 'outputs'>,
): { text: string; attention: boolean } {
  if (!load) return { text: 'not from this project', attention: false };
  if (load.checksum !== memory.checksum)
    return {
      text: load.outputs && sameFilters(load.outputs, memory.outputs) ? 'settings changed' : 'other filters',
      attention: true,
    };
  const variant = project.variants.find((v) => v.id === load.variantId) ?? variantOf(project);
  const name = load.variantName || variant.name;
  return designKey(project, variant.correction) === load.designKey
    ? { text: `= ${name}`, attention: false }
    : { text: `${name}, changed since`, attention: true };
}

/** Memories A to F: what is in each, against which variant, which is active; recall, rename, copy, look at. */
export function MemoryShelf({
  project,
  state,
  busy,
  shownId,
  onShow,
  onRecall,
  onRename,
  onCopy,
}: MemoryShelfProps) {
  const [naming, setNaming] = useState<{ letter: string; name: string } | null>(null);
  const { profile } = theProcessor();
  const settle = () => {
    if (naming) onRename(naming.letter, naming.name.trim());
    setNaming(null);
  };
  return (
    <section className="card" aria-label="Memories">
      <h2>
        Memories{' '}
        <small>
          {state ? `${state.model}, ${profile.mostTaps} taps at ${profile.rate / 1000} kHz` : 'reading …'}
        </small>
      </h2>
      <div style={{ display: 'grid', gridTemplateColumns: 'repeat(3, minmax(0, 1fr))', gap: 6 }}>
        {(state?.memories ?? []).map((m) => {
          const active = state!.active === m.letter;
          const load =
            'empty' in m
              ? undefined
              : project.loads.findLast((l) => l.letter === m.letter || l.checksum === m.checksum);
          const stand = 'empty' in m || !m.hasFilters ? null : standing(project, load, m);
          return (
            <div
              key={m.letter}
              role="group"
              aria-label={`Memory ${m.letter}`}
              style={{
                border: `1.5px ${'empty' in m ? 'dashed' : 'solid'} ${active ? 'var(--kelp)' : 'var(--line)'}`,
                background: active ? 'var(--kelp-soft)' : 'none',
                borderRadius: 10,
                padding: '3px 9px',
                minHeight: 56,
                fontSize: 12.5,
              }}
            >
              <div className="row" style={{ gap: 4 }}>
                <b>{m.letter}</b>
                {active ? (
                  <span>active</span>
                ) : 'empty' in m ? null : (
                  <Button
                    size="compact-xs"
                    variant="subtle"
                    disabled={busy}
                    aria-label={`Recall memory ${m.letter}`}
                    onClick={() => onRecall(m.letter)}
                  >
                    Recall
                  </Button>
                )}
                {'empty' in m ? null : (
                  <Menu position="top-end" shadow="sm">
                    <Menu.Target>
                      <ActionIcon
                        size="xs"
                        variant="subtle"
                        aria-label={`More of memory ${m.letter}`}
                        disabled={busy}
                      >
                        <IconDots size={14} />
                      </ActionIcon>
                    </Menu.Target>
                    <Menu.Dropdown>
                      {load ? (
                        <Menu.Item onClick={() => onShow(load)}>Look at its prediction</Menu.Item>
                      ) : null}
                      <Menu.Item onClick={() => setNaming({ letter: m.letter, name: m.name })}>
                        Rename
                      </Menu.Item>
                      {theProcessor()
                        .profile.memories.filter((l) => l !== m.letter)
                        .map((l) => (
                          <Menu.Item key={l} onClick={() => onCopy(m.letter, l)}>
                            Copy to {l}
                          </Menu.Item>
                        ))}
                    </Menu.Dropdown>
                  </Menu>
                )}
              </div>
              {naming?.letter === m.letter ? (
                <TextInput
                  size="xs"
                  aria-label={`New name of memory ${m.letter}`}
                  autoFocus
                  maxLength={40}
                  value={naming.name}
                  onChange={(e) => setNaming({ ...naming, name: e.currentTarget.value })}
                  onBlur={settle}
                  onKeyDown={(e) => (e.key === 'Enter' ? settle() : e.key === 'Escape' && setNaming(null))}
                />
              ) : (
                <div
                  style={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}
                  className={'empty' in m ? 'quiet' : ''}
                >
                  {'empty' in m
                    ? 'empty'
                    : `${m.name || 'no name'}${m.hasFilters ? `, ${m.outputs.filter((o) => o.taps > 0 || o.sections.length > 0).length} filters` : ''}`}
                </div>
              )}
              {stand ? (
                <small
                  className={stand.attention ? 'attention' : 'quiet'}
                  style={{ whiteSpace: 'nowrap', fontWeight: load && load.id === shownId ? 700 : 400 }}
                >
                  {stand.text}
                </small>
              ) : null}
            </div>
          );
        })}
      </div>
    </section>
  );
}
