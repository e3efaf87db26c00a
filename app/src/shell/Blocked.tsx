import { Button } from '@mantine/core';
import { useEffect, useRef, useState } from 'react';
import { FilePicker } from '../parts/FilePicker';
import { notifyProblem } from '../services/notify';
import { openProjectFile } from '../services/projectFile';
import { openDemo, openProjectHere, repository, sentenceOf, type ListedProject } from '../store';

/** In place of everything, where the project of this tab cannot be opened: why, and the way to the others. */
export function Blocked({ problem, current }: { problem: string; current: string | null }) {
  const [others, setOthers] = useState<ListedProject[] | null>(null);
  const picker = useRef<HTMLInputElement>(null);
  useEffect(() => {
    // where the storage itself is closed there are none to choose from
    void repository()
      .list()
      .then((list) => setOthers(list.filter((p) => p.deletedAt === null && p.id !== current)))
      .catch(() => setOthers(null));
  }, [current]);
  const open = (id: () => Promise<string>) =>
    void id()
      .then(openProjectHere)
      .catch((error: unknown) => notifyProblem(sentenceOf(error)));
  return (
    <main className="shed">
      <h1>This project could not be opened</h1>
      <p role="alert">{problem}</p>
      <Button size="compact-md" onClick={() => location.reload()}>
        Try again
      </Button>
      {others ? (
        <section aria-label="Other projects" style={{ marginTop: 20 }}>
          <h2>Open another one</h2>
          <ul style={{ display: 'grid', gap: 6, padding: 0, listStyle: 'none' }}>
            {others.map((p) => (
              <li key={p.id}>
                <button className="linkish" onClick={() => open(async () => p.id)}>
                  {p.name}, {p.place}
                </button>
              </li>
            ))}
            <li>
              <button className="linkish" onClick={() => picker.current?.click()}>
                A project file
              </button>
              {' · '}
              <button className="linkish" onClick={() => open(() => openDemo(true))}>
                The demo, afresh
              </button>
            </li>
          </ul>
          <FilePicker
            label="Project file"
            accept=".zip"
            picker={picker}
            onFile={(file) => void openProjectFile(file)}
          />
        </section>
      ) : null}
    </main>
  );
}
