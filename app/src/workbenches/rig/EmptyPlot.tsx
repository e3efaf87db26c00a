import type { ReactNode } from 'react';

/** What stands where a plot will be. */
export function EmptyPlot({ children, tools }: { children: ReactNode; tools?: ReactNode }) {
  return (
    <div style={{ display: 'grid', placeItems: 'center', height: '100%' }} className="quiet">
      {tools ? <div style={{ position: 'absolute', right: 10, top: 6 }}>{tools}</div> : null}
      <p style={{ maxWidth: 420, textAlign: 'center' }}>{children}</p>
    </div>
  );
}
