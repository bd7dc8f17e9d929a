/** The way from one file to another, as an import says it: `../components/Row`. */
export function relative(from: string, to: string): string {
  const [here, there] = [from.split('/').slice(0, -1), to.split('/')];
  let same = 0;
  while (same < here.length && same < there.length - 1 && here[same] === there[same]) same++;
  const way = [...here.slice(same).map(() => '..'), ...there.slice(same)].join('/');
  return way.startsWith('.') ? way : `./${way}`;
}
