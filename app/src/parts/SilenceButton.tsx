import { Button } from '@mantine/core';
import { useEffect } from 'react';
import { useStore } from 'zustand';
import { running, silence } from './running';

/** Stops whatever sounds, from any page; Escape does the same while something sounds. */
export function SilenceButton() {
  const what = useStore(running, (r) => r.what);
  useEffect(() => {
    if (!what) return;
    const onKey = (event: KeyboardEvent) => event.key === 'Escape' && silence();
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, [what]);
  return (
    <Button
      variant={what ? 'filled' : 'outline'}
      color="buoy"
      radius="xl"
      size="compact-md"
      disabled={!what}
      onClick={silence}
      title={what ? `Stop: ${what} (Escape)` : 'Nothing sounds'}
    >
      Silence
    </Button>
  );
}
