import { Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { aUser } from './support/aUser';

const user = aUser();
const list = () => user.textOf('Projects');

describe('the projects of this browser', () => {
  it('are duplicated, renamed, opened, deleted and brought back', async () => {
    await user.visit('/');
    await user.sees('Net Loft');
    const name = 'Saltmarsh Boathouse';
    await user.press('Project');
    await user.press('All projects');
    await user.until('the open one is listed', async () => (await list()).includes('open now'));
    await user.press(`Duplicate ${name}`);
    await user.press(`Rename ${name} 2`);
    const field = await user.field(`New name of ${name} 2`);
    await field.sendKeys(Key.chord(Key.CONTROL, 'a'), 'Evening with drapes', Key.ENTER);
    await user.press('Evening with drapes');
    await user.until('it is open', async () => /Evening with drapes\n.*open now/.test(await list()));
    await user.press('Delete Evening with drapes');
    await user.until('another one is open', async () => /Saltmarsh Boathouse\n.*open now/.test(await list()));
    expect(await list()).not.toContain('Evening with drapes');
    await user.press('Bring Evening with drapes back');
    await user.until('it is back', async () => (await list()).includes('Evening with drapes'));
    // what is listed survives a reload, and so does what is open
    await user.visit('/');
    await user.sees('Net Loft');
    await user.press('Project');
    await user.press('All projects');
    await user.until('both are there', async () =>
      /Evening with drapes[^]*Saltmarsh Boathouse|Saltmarsh Boathouse[^]*Evening with drapes/.test(
        await list(),
      ),
    );
  });

  it('those that ship are on the shelf: the finished loft opens, and every workbench has something to show', async () => {
    await user.press('Saltmarsh Boathouse, finished');
    await user.until('it is open', async () => /Boathouse, finished\n.*open now/.test(await list()));
    await user.visit('/');
    await user.sees(/Rig\s+ready, \d\d dB/);
    await user.sees(/Mic walk\s+3 of 3 spots/);
    await user.sees(/Hand over\s+files verified/);
    await user.visit('/mic-walk');
    await user.sees('21 good, of 21');
    await user.visit('/traces');
    await user.sees(/First strong reflection/);
    await user.visit('/correct');
    await user.sees('filters made');
    await user.visit('/hand-over');
    await user.sees('All 7 channels were measured again');
    await user.reads('In the chain', /by files, First variant/);
  });
});
