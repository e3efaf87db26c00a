import { By } from 'selenium-webdriver';
import { expect, it } from 'vitest';
import { aUser } from './support/aUser';
import { violations } from './support/axe';
import { hallGltf, hallObj, hugePng, manyFaces, planDxf, planPng } from './support/drawings';

const user = aUser();

const layUnder = async (path: string) => user.chooseFile('Picture or drawing by others', path);
const outlineBecomesRoom = () => user.tick('Its outline becomes the room');
const value = async (label: string) => (await (await user.field(label)).getAttribute('value'))!.trim();

it('a mesh as OBJ is told, open where it is, and becomes the room with its ridge', async () => {
  await user.visit('/plan');
  await user.reads('What the plan says', /60 m³/);
  await layUnder(hallObj(['Left']));
  await user.reads('What was understood', /OBJ: 14 faces in 5 surfaces/);
  await user.reads(
    'What was understood',
    /does not say its unit\. In metres it measures 14 m × 9 m × 6\.5 m/,
  );
  await user.reads('What was understood', /Open in 1 place: 4 edges/);
  await user.reads('What was understood', /Walls 4 m high, a ridge of 6\.5 m from front to rear/);
  // in another unit it has another size
  await user.pick('Unit of the drawing', 'feet');
  await user.reads('What was understood', /In feet it measures 4\.27 m/);
  await user.pick('Unit of the drawing', 'metres');
  await outlineBecomesRoom();
  await user.press('Lay it under');
  // 14 x 9 x 4 and a triangle of 2.5 over it
  await user.reads('What the plan says', /662 m³ over 126 m²/);
  expect(await value('Name of the drawing')).toBe('gable hall');
  await user.click('//button[starts-with(@aria-label, "Undo")]');
  await user.reads('What the plan says', /60 m³/);
});

it('the same as glTF, closed and in metres, is seen from the side and in a reloaded page', async () => {
  await layUnder(hallGltf());
  await user.reads('What was understood', /glTF: 16 faces in 1 surface \(Hall\)/);
  await user.reads('What was understood', /In metres, as the file says/);
  await user.reads('What was understood', /Closed: every edge belongs to two faces/);
  await user.press('Lay it under');
  await user.reads('Drawing by others', /shown/);
  await user.among('Seen from', 'Side');
  await user.find('//*[@aria-label="gable hall"]//*[name()="path"]');
  await user.type('Turned to the left', '90');
  // stored
  await user.find('//button[starts-with(@aria-label, "Undo: ")][contains(@aria-label, "turned")]');
  await user.visit('/plan');
  await user.find('//*[@aria-label="gable hall"]//*[name()="path"]');
  await user.press('Drawings');
  await user.press('gable hall');
  expect(await value('Turned to the left')).toBe('90 °');
  await user.press('Remove');
  await user.until(
    'the drawing to be gone',
    async () => (await user.driver.findElements(By.xpath('//*[@aria-label="gable hall"]'))).length === 0,
  );
});

it('a DXF in inches gives an L-shaped room of its size, and what it could not draw is told', async () => {
  await layUnder(planDxf());
  await user.reads('What was understood', /DXF: 2 lines named WALLS and STAGE/);
  await user.reads('What was understood', /In inches, as the file says: 15\.24 m × 10\.67 m/);
  await user.reads('What was understood', /6 corners and 134\.7 m²/);
  await user.reads('What was understood', /Left out: texts \(1\)/);
  expect(await violations(user)).toEqual([]);
  await outlineBecomesRoom();
  await user.press('Lay it under');
  await user.reads('What the plan says', /over 134\.7 m²/);
  await user.click('//button[starts-with(@aria-label, "Undo")]');
  await user.reads('What the plan says', /60 m³/);
});

it('a picture is scaled by two points whose distance is known', async () => {
  await user.visit('/plan');
  await layUnder(planPng());
  // the points lie 480 pixels apart: its walls are 6 metres long
  await user.type('Distance of the two points', '6');
  await user.reads('Size of the picture', /7\.5 m × 5 m; a pixel is 12\.5 mm/);
  expect(await violations(user)).toEqual([]);
  await user.press('Lay it under');
  expect(await value('Width of the picture')).toBe('7.5 m');
  await user.find('//*[@aria-label="sketch"]//*[name()="image"]');
  await user.press('Save or print the drawing');
  await user.press('As SVG');
  const svg = (await user.download(/-above\.svg$/)).bytes.toString();
  expect(svg).toContain('href="data:image/png;base64,');
  // it goes along in the project's file
  await user.press('Project');
  await user.press('Save project file');
  const { bytes } = await user.download(/\.pebble\.zip$/);
  expect(bytes.toString('latin1')).toMatch(/drawings\/[0-9a-f-]+\.png/);
  await user.click('//button[starts-with(@aria-label, "Undo")]');
});

it('what is too large is refused with what to do, and nothing is changed', async () => {
  await layUnder(hugePng());
  await user.sees(/200 megapixels \(16000 × 12500\).*Save it smaller.*Nothing was changed/);
  await user.press('Close');
  await layUnder(manyFaces());
  await user.sees(/2,000,000 faces; up to 500,000 are taken.*Nothing was changed/, 60_000);
  await user.press('Close');
  await user.reads('What the plan says', /60 m³/);
});
