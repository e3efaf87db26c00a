import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { User } from './user';

const source = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');
const TAGS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];

/** What the page as it stands breaks of WCAG 2.2 AA and of best practice, one line for each rule and element. */
export async function violations(user: User): Promise<string[]> {
  await user.driver.executeScript(source);
  return user.driver.executeAsyncScript<string[]>(
    `const [tags, done] = arguments;
    axe.run(document, { runOnly: { type: 'tag', values: tags } }).then(
      ({ violations }) => done(violations.flatMap((v) => v.nodes.map((n) => v.id + ': ' + n.html.slice(0, 160) + ' ' + n.failureSummary.replaceAll('\\n', ' ').slice(0, 200)))),
      (error) => done(['axe: ' + error]));`,
    TAGS,
  );
}
