import { shippedIcons } from './icons.ts';

test('drawings by their names and by older ones, with what is said of all of a drawing on it', async () => {
  const drawn = await shippedIcons('lucide', ['house', 'home', 'constructor', 'no-such-icon']);
  expect(Object.keys(drawn)).toEqual(['house', 'home']);
  expect(drawn.home).toBe(drawn.house);
  expect(drawn.house).toMatch(
    /^<svg xmlns="[^"]+" width="24" height="24" viewBox="0 0 24 24" [^>]*stroke-width="2"[^>]*><path /,
  );
  expect(Object.keys(await shippedIcons('feather', ['bell']))).toEqual(['bell']);
});
