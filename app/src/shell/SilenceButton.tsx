import { Button } from '@mantine/core';
import { useEffect } from 'react';
import { useStore } from 'zustand';
import { stopAllOnSilence, running, silence } from '../services/running';

/** Stops whatever sounds, in every tab; Escape does the same from any page. */
export function SilenceButton() {
  const what = useStore(running, (r) => (r.sounds ? r.what : null));
  useEffect(stopAllOnSilence, []);
  useEffect(() => {
    // also with nothing under way here: another tab may be sounding
    const onKey = (event: KeyboardEvent) => event.key === 'Escape' && silence();
    addEventListener('keydown', onKey, true);
    return () => removeEventListener('keydown', onKey, true);
  }, []);
  return (
    <Button
      variant={what ? 'filled' : 'outline'}
      color="buoy.7"
      radius="xl"
      size="compact-md"
      style={{ flexShrink: 0 }}
      disabled={!what}
      onClick={silence}
      title={what ? `Stop: ${what} (Escape)` : 'Nothing sounds'}
    >
      Silence
    </Button>
  );
}
