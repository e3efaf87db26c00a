import { Key } from 'selenium-webdriver';
import type { User } from './user';

/** Rows of the library, chosen as one does. */
export function libraryRows(user: User) {
  const row = (name: string) => `//button[@aria-pressed][@title="${name}"]`;
  return {
    row,
    /** one, and others beside it */
    choose: async (first: string, ...others: string[]) => {
      await user.click(row(first));
      for (const name of others)
        await user.until(`${name} beside it`, async () => {
          const option = await user.find(row(name));
          await user.driver.actions().keyDown(Key.CONTROL).click(option).keyUp(Key.CONTROL).perform();
          return true;
        });
    },
  };
}
