import type { User } from './user';

/** Opens a project of the shelf by its name, and waits until its place is there. */
export async function openShelved(user: User, project: string, place: string): Promise<void> {
  await user.visit('/');
  // the header names both in a row, the shelf below each other
  const opened = `${project}, ${place}`;
  await user.button('Project');
  // a test that is tried again may find it open
  if ((await user.text()).includes(opened)) return;
  await user.press('Project');
  await user.press('All projects');
  await user.press(project);
  await user.sees(opened);
}

/** The Slip Hall with its level map. */
export async function openLevelMap(user: User): Promise<void> {
  await openShelved(user, 'Saltmarsh Slip Hall', 'the Slip Hall');
  await user.visit('/plan');
  await user.press('Level map');
  await user.reads('Over the seats', /181 seats/);
}
