import { Button } from '@mantine/core';
import { lazy, useState } from 'react';
import { DrawnInThree } from '../../parts/scene/DrawnInThree';
import type { RoomSceneProps } from './RoomScene';

// what draws it is large, and needed here only
const RoomScene = lazy(() => import('./RoomScene'));

/** The room in 3D, turned with the hand. */
export function RoomInThree(props: Omit<RoomSceneProps, 'fitted'>) {
  const [fitted, setFitted] = useState(0);
  return (
    <DrawnInThree>
      <RoomScene {...props} fitted={fitted} />
      <small className="quiet" style={{ position: 'absolute', left: 14, right: 64, bottom: 10 }}>
        {props.swallows
          ? 'The fuller, the more it swallows at 1 kHz. Drag to turn it, wheel for nearer.'
          : 'Drag to turn it, wheel for nearer and farther.'}
      </small>
      <div style={{ position: 'absolute', right: 10, bottom: 8 }}>
        <Button size="compact-sm" variant="default" onClick={() => setFitted(fitted + 1)}>
          Fit
        </Button>
      </div>
    </DrawnInThree>
  );
}
