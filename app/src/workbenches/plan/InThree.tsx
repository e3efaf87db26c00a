import { Button } from '@mantine/core';
import { lazy, useState } from 'react';
import { DrawnInThree } from '../../parts/scene/DrawnInThree';
import type { PlaceSceneProps } from './PlaceScene';

// what draws it is large, and needed here only
const PlaceScene = lazy(() => import('./PlaceScene'));

/** The place in 3D: turned with the hand, nearer with the wheel; seen from outside or from the home spot. */
export function InThree(props: Omit<PlaceSceneProps, 'stand' | 'fitted'>) {
  const [stand, setStand] = useState<PlaceSceneProps['stand']>('outside');
  const [fitted, setFitted] = useState(0);
  return (
    <DrawnInThree>
      <PlaceScene {...props} stand={stand} fitted={fitted} />
      <small className="quiet" style={{ position: 'absolute', left: 14, right: 230, bottom: 12 }}>
        {stand === 'home'
          ? 'Drag to look around. Arrow keys walk, Page Up and Page Down rise and sink, with Shift a metre.'
          : 'Drag to turn it, wheel for nearer and farther.'}
      </small>
      <div style={{ position: 'absolute', right: 10, bottom: 8, display: 'flex', gap: 6 }}>
        <Button size="compact-sm" variant="default" onClick={() => setFitted(fitted + 1)}>
          Fit
        </Button>
        <Button
          size="compact-sm"
          variant={stand === 'home' ? 'light' : 'default'}
          aria-pressed={stand === 'home'}
          onClick={(event) => {
            setStand(stand === 'home' ? 'outside' : 'home');
            // so that keys walk at once
            event.currentTarget.closest('.plot')?.querySelector('canvas')?.focus();
          }}
        >
          From the home spot
        </Button>
      </div>
    </DrawnInThree>
  );
}
