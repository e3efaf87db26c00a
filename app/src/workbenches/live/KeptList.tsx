import { memo } from 'react';
import { Button } from '@mantine/core';
import type { Project } from '@pebble-hall/core/project';
import { changeProject } from '../../services/changeProject';

/** The traces that were kept last, newest first; their names are typed over in place. */
export const KeptList = memo(function KeptList({ project, most }: { project: Project; most: number }) {
  const kept = project.kept.slice(-most).reverse();
  if (project.kept.length === 0) return null;
  return (
    <section aria-label="Kept traces" style={{ display: 'flex', flexDirection: 'column', gap: 3 }}>
      <h2>
        Kept
        <Button size="compact-xs" variant="default" component="a" href="/traces#library">
          {project.kept.length === 1 ? '1 in Traces' : `${project.kept.length} in Traces`}
        </Button>
      </h2>
      {kept.map((k) => (
        <div key={k.id} className="row">
          <input
            className="plain-input"
            style={{ flex: 1, minWidth: 0 }}
            aria-label={`Name of ${k.name}`}
            defaultValue={k.name}
            key={k.name}
            maxLength={180}
            onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
            onBlur={(e) => {
              const name = e.currentTarget.value.trim();
              if (name === '') e.currentTarget.value = k.name;
              else if (name !== k.name)
                void changeProject(`${k.name} is now ${name}`, (p) => ({
                  ...p,
                  kept: p.kept.map((other) => (other.id === k.id ? { ...other, name } : other)),
                }));
            }}
          />
          <span className="mono" style={{ fontSize: 12 }}>
            {new Date(k.keptAt).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit', hour12: false })}
          </span>
        </div>
      ))}
    </section>
  );
});
