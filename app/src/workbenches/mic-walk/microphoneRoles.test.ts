import { expect, it } from 'vitest';
import { roleOf, withRole } from './microphoneRoles';

it('gives each microphone one part, and takes the old one away', () => {
  let rig = withRole({ alongIds: [], pairs: [] }, 'b', 'along', 1000);
  expect(roleOf(rig, 'b')).toBe('along');
  rig = withRole(rig, 'b', 'floor a', 1000);
  expect(rig).toEqual({ alongIds: [], pairs: [{ earId: 'a', floorId: 'b', crossoverHz: 1000 }] });
  expect(roleOf(rig, 'b')).toBe('floor a');
  rig = withRole(rig, 'b', 'away', 1000);
  expect(rig).toEqual({ alongIds: [], pairs: [] });
});

it('lays only one microphone below another, and none below one that lies on the floor itself', () => {
  let rig = withRole({ alongIds: [], pairs: [] }, 'b', 'floor a', 1000);
  rig = withRole(rig, 'c', 'floor a', 800);
  expect(rig.pairs).toEqual([{ earId: 'a', floorId: 'c', crossoverHz: 800 }]);
  rig = withRole(withRole(rig, 'b', 'floor d', 500), 'd', 'floor a', 900);
  expect(rig.pairs).toEqual([{ earId: 'a', floorId: 'd', crossoverHz: 900 }]);
});
