import { Suspense, useState, type ReactNode } from 'react';
import { drawsInThree } from './drawsInThree';

/** A scene, made when it is first needed; where the browser draws none, what to do. */
export function DrawnInThree({ children }: { children: ReactNode }) {
  const [draws] = useState(drawsInThree);
  if (!draws)
    return (
      <p className="quiet" style={{ maxWidth: 420, margin: '15% auto', textAlign: 'center' }}>
        This browser does not draw in 3D here. Switch hardware acceleration on in its settings, or use the
        other views.
      </p>
    );
  return <Suspense fallback={<p className="quiet">Making the scene …</p>}>{children}</Suspense>;
}
