import { triedOnce, type TestedLink } from './links.ts';

const link = (from: string, name: string, to = '/'): TestedLink => ({
  from,
  role: 'link',
  name,
  kind: 'go',
  to,
});

test('what most screens of a layout have is pressed on the first of them', () => {
  const screens = ['/a', '/b'];
  const bars = screens.flatMap((from) => [link(from, 'Home'), link(from, 'Loans', '/loans')]);
  const own = [link('/a', 'Rake', '/rake'), link('/b', 'Hoe', '/hoe'), link('/b', 'Loans', '/all')];
  const alone = [link('/login', 'Home')];
  expect(triedOnce([...bars, ...own, ...alone], [screens])).toEqual([bars[0], bars[1], ...own, ...alone]);
});

test('what many screens have alike is pressed on the first of them, whatever is around them', () => {
  const all = ['/a', '/b', '/c', '/d', '/e'].map((from, i) => ({ ...link(from, 'Help', '/help'), at: i }));
  const others = [link('/b', 'Help', '/more'), link('/c', 'Help', '/more')];
  expect(triedOnce([...all, ...others], [['/a', '/b']])).toEqual([all[0], ...others]);
});

test('what few screens of a layout have is pressed on each', () => {
  const few = ['/a', '/b'].map((from) => link(from, 'Back'));
  expect(triedOnce(few, [['/a', '/b', '/c', '/d']])).toEqual(few);
});
