import type { Project } from '@pebble-hall/core/project';
import { stonesOf } from '../words/workbenchStatus';

/** Navigation: one stone per workbench, in working order, each telling how far that part of the job is. */
export function StoneRow({ project, path }: { project: Project; path: string }) {
  return (
    <nav className="stones" aria-label="Workbenches">
      <svg viewBox="0 0 1280 44" preserveAspectRatio="none" aria-hidden="true">
        <path
          d="M150 22 C290 12 380 32 510 22 S740 30 850 20 S1040 28 1130 22"
          fill="none"
          stroke="var(--line)"
          strokeWidth="2"
        />
      </svg>
      {stonesOf(project).map(({ name, path: to, state, evidence }) => (
        <a
          key={to}
          className="stone"
          href={to}
          data-state={state}
          aria-current={to === path ? 'page' : undefined}
        >
          <i>{name}</i>
          {evidence}
        </a>
      ))}
    </nav>
  );
}
