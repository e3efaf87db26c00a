import { Button } from '@mantine/core';
import type { MemoryLetter, ProcessorState } from '@pebble-hall/stand-ins/processor';

/** Memories A to F: what is in each, which is active, recall. */
export function MemoryShelf({
  state,
  busy,
  onRecall,
}: {
  state: ProcessorState | null;
  busy: boolean;
  onRecall: (letter: MemoryLetter) => void;
}) {
  return (
    <section className="card" aria-label="Memories">
      <h2>
        Memories{' '}
        <small>
          {state ? `${state.model}, ${state.mostTaps} taps at ${state.rate / 1000} kHz` : 'reading …'}
        </small>
      </h2>
      <div style={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', gap: 6 }}>
        {(state?.memories ?? []).map((m) => {
          const active = state!.active === m.letter;
          return (
            <div
              key={m.letter}
              role="group"
              aria-label={`Memory ${m.letter}`}
              style={{
                border: `1.5px ${'empty' in m ? 'dashed' : 'solid'} ${active ? 'var(--kelp)' : 'var(--line)'}`,
                background: active ? 'var(--kelp-soft)' : 'none',
                borderRadius: 10,
                padding: '4px 9px',
                minHeight: 46,
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
              </div>
              <div
                style={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}
                className={'empty' in m ? 'quiet' : ''}
              >
                {'empty' in m
                  ? 'empty'
                  : `${m.name || 'no name'}${m.hasFilters ? `, ${m.outputs.filter((o) => o.taps > 0).length} filters` : ''}`}
              </div>
            </div>
          );
        })}
      </div>
    </section>
  );
}
