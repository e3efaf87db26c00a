import type { ReactNode } from 'react';

/** Two pictures side by side. @param right how much wider the right one is */
export const Halves = ({ children, right = 1.1 }: { children: ReactNode; right?: number }) => (
  <div
    style={{
      display: 'grid',
      gridTemplateColumns: `minmax(0, 1fr) minmax(0, ${right}fr)`,
      gap: 14,
      minHeight: 0,
    }}
  >
    {children}
  </div>
);
