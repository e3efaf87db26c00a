import type { User } from './user';

const number = (text: string) => Number(text.replace('\u2212', '-').replace(/[^\d.-]/g, ''));

/** What a user does in Align. */
export const aligning = (user: User) => ({
  number,
  fieldOf: async (label: string) => number((await (await user.field(label)).getAttribute('value')) ?? ''),
  inGroup: (group: string, nth: number) =>
    user.click(`//*[@role="group"][@aria-label="${group}"]/button[${nth}]`),
  source: async (name: string) => {
    await user.click(`//section[@aria-label="Sources"]//button[@aria-pressed][contains(., "${name}")]`);
    // its own card, not that of the one before
    await user.reads('Setting', new RegExp(name));
  },
  step: async (name: string) => {
    await user.click(`//button[@role="tab"][contains(., "${name}")]`);
    await user.find(`//button[@role="tab"][@aria-selected="true"][contains(., "${name}")]`);
  },
  look: (at: 'Curves' | 'Where') => user.click(`//label[normalize-space(.)="${at}"]`),
  aWay: () => user.until('a way', async () => /\d %/.test(await user.textOf('Ways to bring them together'))),
});
