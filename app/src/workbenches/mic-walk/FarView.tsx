import { Button, Modal } from '@mantine/core';
import { useEffect } from 'react';
import { FarFigures } from '../../parts/FarFigures';
import type { FollowCommand, FollowState } from '../../services/followState';

/** The round in figures that can be read from the seat; the space bar takes the spot, or begins at once. */
export function FarView({
  state,
  onCommand,
  onClose,
}: {
  state: FollowState;
  onCommand: (command: FollowCommand) => void;
  onClose: () => void;
}) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.code !== 'Space' || event.repeat || (event.target as Element).closest('button')) return;
      event.preventDefault();
      if (state.phase === 'idle') onCommand({ do: 'take' });
      else if (state.phase === 'counting') onCommand({ do: 'begin' });
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, [state.phase, onCommand]);
  return (
    <Modal opened onClose={onClose} fullScreen title={state.round} transitionProps={{ duration: 0 }}>
      <div style={{ display: 'grid', gap: '3vmin', alignContent: 'center', minHeight: 'calc(100vh - 90px)' }}>
        <FarFigures state={state} />
        <div style={{ display: 'flex', gap: 14, justifyContent: 'center' }}>
          {state.phase === 'idle' ? (
            <>
              <Button size="xl" fz={22} onClick={() => onCommand({ do: 'take' })}>
                Take this spot
              </Button>
              <Button size="xl" fz={22} variant="default" onClick={() => onCommand({ do: 'take all' })}>
                Take all that are left
              </Button>
            </>
          ) : (
            <>
              {state.phase === 'counting' ? (
                <Button size="xl" fz={22} onClick={() => onCommand({ do: 'begin' })}>
                  Begin now
                </Button>
              ) : null}
              <Button size="xl" fz={22} variant="default" onClick={() => onCommand({ do: 'stop' })}>
                Stop
              </Button>
            </>
          )}
        </div>
      </div>
    </Modal>
  );
}
