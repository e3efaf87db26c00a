import { readCalibrationText } from '@pebble-hall/core/formats';
import { extentOf, floorAt } from '@pebble-hall/core/place';
import { placeProblems, readProjectFile } from '@pebble-hall/core/project';
import { expect, it } from 'vitest';
import { demoFiles, FINISHED } from './demoFiles';
import { netLoftProject } from './netLoftProject';
import { slipHallProject } from './slipHallProject';

it('makes a project file that opens, and a calibration that reads', () => {
  const files = demoFiles();
  const { project, arrays } = readProjectFile(files['saltmarsh-boathouse.pebble.zip']!);
  expect(project).toEqual(JSON.parse(JSON.stringify(netLoftProject()))); // JSON has no -0
  expect(arrays).toEqual([]);
  expect(readCalibrationText(new TextDecoder().decode(files['siskin-m1-4417.txt'])).serial).toBe('4417');
});

it('stands everything within the room and feeds every loudspeaker from an output of its own', () => {
  const { place } = netLoftProject();
  for (const { position } of [...place.seats, ...place.spots, ...place.loudspeakers]) {
    for (const axis of ['x', 'y', 'z'] as const) {
      expect(position[axis]).toBeGreaterThan(0);
      expect(position[axis]).toBeLessThan(extentOf(place.shape).most[axis]);
    }
  }
  expect(new Set(place.loudspeakers.map((l) => l.output)).size).toBe(7);
});

it('puts the Slip Hall on the shelf: nothing wrong with its plan, a spot over every part of the stalls', () => {
  const files = demoFiles();
  const shelf = JSON.parse(new TextDecoder().decode(files['shelf.json'])) as { file: string; name: string }[];
  for (const { file, name } of shelf.filter((s) => files[s.file]))
    expect(readProjectFile(files[file]!).project.name).toBe(name);
  expect(shelf.map((s) => s.name)).toContain(FINISHED.name);
  const { place } = slipHallProject();
  expect(placeProblems(place, { outputs: 12 })).toEqual([]);
  expect(place.spots).toHaveLength(15);
  for (const { position } of place.spots) {
    const over = position.z - floorAt(place.shape, position);
    expect(over).toBeGreaterThan(1);
    expect(over).toBeLessThan(1.4);
  }
});
