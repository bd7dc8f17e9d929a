/** The way from one file or folder to another; folders end with a slash, the root is empty, and so is the way to where one is. */
export function wayTo(from: string, to: string): string {
  const [here, there] = [from.split('/').slice(0, -1), to.split('/')];
  let same = 0;
  while (same < here.length && same < there.length - 1 && here[same] === there[same]) same++;
  return [...here.slice(same).map(() => '..'), ...there.slice(same)].join('/');
}
