import { triedOnce, type TestedLink } from './links.ts';

const link = (from: string, name: string, to = '/'): TestedLink => ({
  from,
  role: 'link',
  name,
  kind: 'go',
  to,
});

test('what most screens of a layout have is pressed on the first of them', () => {
  const screens = ['/a', '/b', '/c'];
  const bars = screens.flatMap((from) => [link(from, 'Home'), link(from, 'Loans', '/loans')]);
  const own = [link('/a', 'Rake', '/rake'), link('/b', 'Hoe', '/hoe'), link('/c', 'Loans', '/all')];
  const alone = [link('/login', 'Home'), link('/help', 'Home')];
  expect(triedOnce([...bars, ...own, ...alone], [screens])).toEqual([bars[0], bars[1], ...own, ...alone]);
});

test('what few screens of a layout have is pressed on each', () => {
  const few = ['/a', '/b'].map((from) => link(from, 'Back'));
  expect(triedOnce(few, [['/a', '/b', '/c', '/d']])).toEqual(few);
});
