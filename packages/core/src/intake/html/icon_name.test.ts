import { iconName } from './icon_name.ts';

test.each([
  ['fas fa-tachometer-alt', 'tachometer alt'],
  ['fa fa-2x fa-user', 'user'],
  ['fas fa-fw fa-cog text-gray-400', 'cog'],
  ['text-danger fas fa-bell', 'bell'],
  ['tim-icons icon-coins', 'coins'],
  ['nc-icon nc-bank', 'bank'],
  ['glyphicon glyphicon-user', 'user'],
  ['mdi mdi-account-circle mdi-spin', 'account circle'],
  ['bi-arrow-left', 'arrow left'],
  ['icon', 'icon'],
  ['', 'icon'],
])('classes “%s” show “%s”', (classes, shown) => {
  expect(iconName(classes)).toBe(shown);
});
