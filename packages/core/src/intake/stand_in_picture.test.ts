import { standInPicture } from './stand_in_picture.ts';

test.each<[address: string, size: readonly [number, number] | null]>([
  ['https://pictures.example/600x400/343a40/6c757d', [600, 400]],
  ['//pictures.example/id/7/200/300', [200, 300]],
  ['https://pictures.example/200/300.jpg?gray', [200, 300]],
  ['https://pictures.example/shed.jpg?fit=crop&w=640&h=480', [640, 480]],
  ['https://pictures.example/150', [150, 150]],
  ['https://pictures.example/shed-1024x768.png', [1024, 768]],
  ['https://pictures.example/shed.jpg', null],
  ['https://pictures.example/shed.jpg?w=640', null],
  ['https://pictures.example/2024/shed.jpg', null],
  ['https://pictures.example/1x1.gif', null],
  ['https://pictures.example/99999x1', null],
  ['pictures/600x400.png', null],
  ['/600x400.png', null],
  ['data:image/png;base64,600x400', null],
])('%s has the size %j', (address, size) => {
  const found = standInPicture(address);
  expect(found && [found.width, found.height]).toEqual(size);
});

test('what stands for a picture is drawn at its size, with words where there is room', () => {
  const drawn = (address: string): string => new TextDecoder().decode(standInPicture(address)!.bytes);
  expect(drawn('https://a.example/600x400')).toContain('width="600" height="400"');
  expect(drawn('https://a.example/600x400')).toContain('600 × 400</text>');
  expect(drawn('https://a.example/20x20')).not.toContain('<text');
});
