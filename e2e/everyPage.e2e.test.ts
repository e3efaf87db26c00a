import { beforeAll, describe, expect, it } from 'vitest';
import { aUser } from './support/aUser';
import { violations } from './support/axe';

const user = aUser();

const tab = (name: string) =>
  user.click(`//*[@role="tab"][starts-with(@aria-label, "${name}") or normalize-space(.)="${name}"]`);
const workOn = (name: string) => user.among('What is worked on', name);

/** The plan with nothing chosen, with a loudspeaker, and its tables. */
const partOfPlan = async (part: string) => {
  if (part === 'Walls') await user.among('Table of', 'Walls');
  else if (part !== 'Drawing') await user.press(part);
};

/** Where there is something to see, and how one comes to each of its parts. */
const PLACES: [path: string, sees: string, parts: string[], open: (part: string) => Promise<void>][] = [
  ['/', 'Start here', [], tab],
  ['/plan', 'What the plan says', ['Drawing', 'Left', 'Table', 'Walls'], partOfPlan],
  ['/room-model', 'The room', [], tab],
  ['/rig', 'Parts of the rig', ['Connect', 'Microphones', 'Level', 'Channels', 'Distances'], tab],
  ['/mic-walk', 'What the round says', [], tab],
  [
    '/live',
    'What is measured live',
    ['Transfer function', 'Spectrum', 'Electronics'],
    (part) => user.among('What is measured live', part),
  ],
  ['/traces', 'Readout', ['Level', 'Delay', 'Time', 'Distortion', 'Decay', 'Room figures'], tab],
  ['/align', 'A new step', [], tab],
  [
    '/correct',
    'What the plot says',
    ['Shape', 'Filter', 'Levels and delays', 'Subwoofers', 'Bass', 'Variants'],
    workOn,
  ],
  ['/listen', 'What is heard', [], tab],
  ['/hand-over', 'Export', [], tab],
];

const RULES: Record<string, 'all' | 'colours'> = { Daylight: 'all', Dusk: 'colours' };

/** Waits until nothing has changed on the page for a while: what is worked out for it is there, what fades in has faded in. */
const settled = () =>
  user.driver.executeAsyncScript(
    `const done = arguments[0];
    const end = performance.now() + 4000;
    let last = performance.now();
    const watch = new MutationObserver(() => (last = performance.now()));
    watch.observe(document.body, { subtree: true, childList: true, attributes: true, characterData: true });
    const look = setInterval(() => {
      const now = performance.now();
      if (now - last < 400 && now < end) return;
      clearInterval(look);
      watch.disconnect();
      done();
    }, 50);`,
  );

describe.each(['Daylight', 'Dusk'])('in %s, WCAG 2.2 AA and best practice', (look) => {
  beforeAll(async () => {
    await user.visit('/');
    if (look === 'Daylight') {
      await user.press('Project');
      await user.press('All projects');
      await user.press('Saltmarsh Boathouse, finished');
      await user.until('it is open', async () =>
        /Boathouse, finished\n.*open now/.test(await user.textOf('Projects')),
      );
    } else {
      await user.press('Dusk: dark look');
    }
  });

  it.each(PLACES)('%s breaks nothing', async (path, sees, parts, open) => {
    await user.visit(path);
    await user.region(sees);
    const found: string[] = [];
    for (const part of parts.length > 0 ? parts : [null]) {
      if (part) await open(part);
      await settled();
      // a look changes colours alone: the rest was asked in the other one
      found.push(...(await violations(user, RULES[look]!)).map((v) => `${part ?? path}: ${v}`));
    }
    expect(found).toEqual([]);
  });
});
