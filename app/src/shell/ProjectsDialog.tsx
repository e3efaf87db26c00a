import { ActionIcon, Button, Modal, TextInput } from '@mantine/core';
import { IconCopy, IconPencil, IconTrash } from '../icons';
import { useCallback, useEffect, useState } from 'react';
import {
  demoShelf,
  openDemo,
  openProjectHere,
  projectOwner,
  repository,
  sentenceOf,
  takeIn,
  type ListedProject,
  type Shelved,
} from '../store';
import { notifyProblem } from '../services/notify';
import { storageRoom, type StorageRoom } from '../services/storageRoom';
import { roomWords } from '../words/roomWords';
import { sizeWords } from '../words/sizeWords';
import { freeName } from '@pebble-hall/core/project';

/** What was deleted comes back for so long. */
const KEPT_MS = 7 * 24 * 3600_000;

/** All projects of this browser: open, rename, duplicate, delete, and bring back what was deleted. */
export function ProjectsDialog({
  current,
  opened,
  onClose,
  onNew,
}: {
  current: string;
  opened: boolean;
  onClose: () => void;
  /** asks for a new one */
  onNew: () => void;
}) {
  const [list, setList] = useState<ListedProject[]>([]);
  const [sizes, setSizes] = useState<ReadonlyMap<string, number> | null>(null);
  const [renaming, setRenaming] = useState<string | null>(null);
  const [shelf, setShelf] = useState<Shelved[]>([]);
  const [room, setRoom] = useState<StorageRoom | null>(null);
  const refresh = useCallback(async () => {
    setRoom(await storageRoom());
    await repository().removeForGood(Date.now() - KEPT_MS);
    setList(await repository().list());
    // a shelf that cannot be had is an empty one: nothing rests on it
    setShelf(await demoShelf().catch(() => []));
  }, []);
  /** Reads every sound once: only when the list is opened, and when there are more of them. */
  const measure = useCallback(async () => setSizes(await repository().sizes()), []);
  /** Does something with a project, and reads the list anew; a problem is told, and leaves it as it was. */
  const act = (run: () => Promise<unknown>) =>
    void run()
      .then(refresh)
      .catch((error: unknown) => notifyProblem(sentenceOf(error)));
  useEffect(() => {
    if (opened) void refresh().catch((error: unknown) => notifyProblem(sentenceOf(error)));
  }, [opened, refresh, current]);
  useEffect(() => {
    if (opened) void measure().catch((error: unknown) => notifyProblem(sentenceOf(error)));
  }, [opened, measure]);
  const open = (id: string) =>
    act(async () => {
      await repository().touch(id);
      await openProjectHere(id);
    });
  const remove = ({ id }: ListedProject) =>
    act(async () => {
      await repository().remove(id);
      // the one that is open makes room for another
      if (id === current) await openProjectHere((await repository().newest()) ?? (await openDemo(true)));
    });
  const rename = (project: ListedProject, wanted: string) => {
    setRenaming(null);
    const name = wanted.trim();
    if (!name || name === project.name) return;
    act(() =>
      project.id === current
        ? projectOwner().change(`project ${name}`, (p) => ({ ...p, name }))
        : repository().change(project.id, `project ${name}`, (p) => ({ ...p, name })),
    );
  };
  const sizeOf = (id: string) => (sizes ? sizeWords(sizes.get(id) ?? 0) : '…');
  const untouched = shelf.filter((s) => !list.some((p) => p.id === s.id));
  const openShelved = (item: Shelved) => act(async () => openProjectHere(await takeIn(item)));
  const there = list.filter((p) => p.deletedAt === null);
  const gone = list.filter((p) => p.deletedAt !== null);
  return (
    <Modal opened={opened} onClose={onClose} title="Projects in this browser" size={760}>
      <table className="plain" aria-label="Projects" style={{ width: '100%' }}>
        <thead>
          <tr>
            <th>Project</th>
            <th>Last worked on</th>
            <th className="num">Size</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {there.map((project) => (
            <tr key={project.id}>
              <td>
                {renaming === project.id ? (
                  <TextInput
                    size="xs"
                    autoFocus
                    aria-label={`New name of ${project.name}`}
                    maxLength={80}
                    defaultValue={project.name}
                    onKeyDown={(e) => {
                      if (e.key === 'Enter') e.currentTarget.blur();
                      if (e.key === 'Escape') {
                        e.stopPropagation();
                        setRenaming(null);
                      }
                    }}
                    onBlur={(e) => rename(project, e.currentTarget.value)}
                  />
                ) : (
                  <>
                    {project.id === current ? (
                      <b>{project.name}</b>
                    ) : (
                      <button className="linkish" onClick={() => open(project.id)}>
                        {project.name}
                      </button>
                    )}
                    <small className="quiet" style={{ display: 'block' }}>
                      {project.place}
                      {project.id === current ? ', open now' : ''}
                    </small>
                  </>
                )}
              </td>
              <td>{new Date(project.openedAt).toLocaleString()}</td>
              <td className="num mono">{sizeOf(project.id)}</td>
              <td>
                <span style={{ display: 'flex', gap: 5, justifyContent: 'flex-end' }}>
                  <ActionIcon
                    variant="default"
                    aria-label={`Rename ${project.name}`}
                    onClick={() => setRenaming(project.id)}
                  >
                    <IconPencil size={15} />
                  </ActionIcon>
                  <ActionIcon
                    variant="default"
                    aria-label={`Duplicate ${project.name}`}
                    onClick={() =>
                      act(async () => {
                        const names = list.map((p) => p.name);
                        await repository().duplicate(project.id, freeName(project.name, names));
                        await measure();
                      })
                    }
                  >
                    <IconCopy size={15} />
                  </ActionIcon>
                  <ActionIcon
                    variant="default"
                    aria-label={`Delete ${project.name}`}
                    onClick={() => remove(project)}
                  >
                    <IconTrash size={15} />
                  </ActionIcon>
                </span>
              </td>
            </tr>
          ))}
          {untouched.map((item) => (
            <tr key={item.id}>
              <td>
                <button className="linkish" onClick={() => openShelved(item)}>
                  {item.name}
                </button>
                <small className="quiet" style={{ display: 'block' }}>
                  {item.place}, comes with Pebble Hall
                </small>
              </td>
              <td>not yet</td>
              <td className="num" />
              <td />
            </tr>
          ))}
        </tbody>
      </table>
      <div className="row" style={{ marginTop: 12, alignItems: 'center' }}>
        <Button size="compact-md" onClick={onNew}>
          New project
        </Button>
        {room ? <small className="quiet">{roomWords(room)}</small> : null}
      </div>
      {gone.length > 0 ? (
        <section aria-label="Deleted projects" style={{ marginTop: 16, display: 'grid', gap: 6 }}>
          <b>Deleted, kept for a week</b>
          {gone.map((project) => (
            <div className="row" key={project.id}>
              <span>
                {project.name} <small className="quiet">{sizeOf(project.id)}</small>
              </span>
              <Button
                size="compact-sm"
                variant="default"
                aria-label={`Bring ${project.name} back`}
                onClick={() => act(() => repository().bringBack(project.id))}
              >
                Bring back
              </Button>
            </div>
          ))}
        </section>
      ) : null}
    </Modal>
  );
}
