import { applyChange, emptyApp, type FoundRegion, putRegion } from '@tovel/core';
import { openRegions, textWithin } from './ReadingPicture';
import { newRegionKeys, regionsOn } from './regions';
import { regionOf } from './RegionsPanel';

const found: FoundRegion[] = [
  { kind: 'box', box: { x: 20, y: 100, width: 200, height: 48 }, confidence: 0.75 },
  { kind: 'text', box: { x: 60, y: 116, width: 90, height: 16 }, text: 'Reserve', confidence: 0.9 },
  { kind: 'text', box: { x: 155, y: 116, width: 40, height: 16 }, text: 'all', confidence: 0.9 },
  { kind: 'text', box: { x: 20, y: 300, width: 90, height: 16 }, text: 'Below', confidence: 0.9 },
];

test('a box is called by the text that is written in it', () => {
  expect(textWithin(found[0].box, found)).toBe('Reserve all');
  expect(textWithin({ x: 0, y: 0, width: 10, height: 10 }, found)).toBeNull();
  expect(regionOf(found[0], found)).toEqual({ kind: 'box', box: found[0].box, name: 'Reserve all' });
  expect(regionOf(found[3], found)).toMatchObject({ kind: 'text', name: 'Below', text: 'Below' });
  expect(regionOf({ ...found[0], box: { x: 0, y: 0, width: 9, height: 9 } }, found).name).toBe('Box');
});

test('what was taken is no longer open', () => {
  const taken = [regionOf(found[0], found)];
  expect(openRegions(found, taken)).toEqual(found.slice(1));
  expect(openRegions(found, [])).toEqual(found);
});

test('regions are those of one screen, and new ones are numbered after them', () => {
  const app = ['a:~r1', 'a:~r12', 'ab:~r40']
    .map((key) => putRegion(key, { ...regionOf(found[0], found), name: key }))
    .reduce(applyChange, emptyApp);
  expect(regionsOn(app, 'a').map(({ name }) => name)).toEqual(['a:~r1', 'a:~r12']);
  expect(newRegionKeys(app, 'a', 2)).toEqual(['a:~r13', 'a:~r14']);
  expect(newRegionKeys(app, 'other', 1)).toEqual(['other:~r1']);
});
