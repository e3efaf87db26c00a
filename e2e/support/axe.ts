import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { User } from './user';

const source = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');
const TAGS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];
const COLOURS = ['color-contrast'];

/**
 * What the page as it stands breaks of WCAG 2.2 AA and of best practice, one line for each rule and element.
 * @param rules whether all of them are asked, or those of colours alone
 */
export async function violations(user: User, rules: 'all' | 'colours' = 'all'): Promise<string[]> {
  await user.driver.executeScript(source);
  return user.driver.executeAsyncScript<string[]>(
    `const [runOnly, done] = arguments;
    // what fades in has other colours on its way
    const moving = document.getAnimations().filter((a) => a.effect?.getComputedTiming().endTime < 5000);
    const still = Promise.allSettled(moving.map((a) => a.finished));
    Promise.race([still, new Promise((resolve) => setTimeout(resolve, 1500))]).then(() =>
    axe.run(document, { runOnly }).then(
      ({ violations }) => done(violations.flatMap((v) => v.nodes.map((n) => v.id + ': ' + n.html.slice(0, 160) + ' ' + n.failureSummary.replaceAll('\\n', ' ').slice(0, 200)))),
      (error) => done(['axe: ' + error])));`,
    rules === 'all' ? { type: 'tag', values: TAGS } : { type: 'rule', values: COLOURS },
  );
}
