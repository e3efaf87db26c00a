import { readCalibrationText } from '@pebble-hall/core/formats';
import { extentOf } from '@pebble-hall/core/place';
import { readProjectFile } from '@pebble-hall/core/project';
import { expect, it } from 'vitest';
import { demoFiles, netLoftProject } from './netLoftProject';

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
