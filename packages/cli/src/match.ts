import { type Design, type Element, matchDesigns, type Screen, walkElements } from '@tovel/core';
import { type Command, EXIT, parseArguments } from './command.ts';
import { readDesign } from './files.ts';

export const match: Command = {
  usage: 'tovel match old.json new.json',
  summary: 'prints which screens and elements of a design are which in its next version',
  help: `Prints {screens: [{old, new, kinship, score}], pairs: [{screen, oldPath, newPath, score}],
removed, added}. Screens are the files that they came from; pairs are of the newer screen and
paths are those of source.path; removed and added are {screen, path}. kinship is same, part,
joined or width. Of pairs with a score of 0.9 and above nearly all are right. Takes design
documents or .tovel files.`,
  async run(args, output) {
    const { paths } = parseArguments(args, []);
    const [old, now] = [await readDesign(paths[0]), await readDesign(paths[1])];
    const found = matchDesigns(old, now);
    const pairs = found.pairs.filter((pair) => isInFile(pair.old) && isInFile(pair.now));
    const paired = new Set(pairs.flatMap((pair) => [pair.old, pair.now]));
    output.out(
      `${JSON.stringify(
        {
          screens: found.screens.map(({ old: from, now: to, kinship, score }) => ({
            old: from.source.file,
            new: to.source.file,
            kinship,
            score,
          })),
          pairs: pairs.map((pair) => ({
            screen: pair.to.source.file,
            oldPath: pair.old.source.path,
            newPath: pair.now.source.path,
            score: pair.score,
          })),
          removed: left(old, paired),
          added: left(now, paired),
        },
        null,
        1,
      )}\n`,
    );
    return EXIT.good;
  },
};

/** Elements that intake made itself, such as runs of text, have no place in the file. */
const isInFile = (element: Element): boolean => !element.source.path.includes('~');

const left = (design: Design, paired: ReadonlySet<Element>): { screen: string; path: string }[] =>
  design.screens.flatMap((screen: Screen) => {
    const rows: { screen: string; path: string }[] = [];
    walkElements(screen.root, (element) => {
      if (isInFile(element) && !paired.has(element))
        rows.push({ screen: screen.source.file, path: element.source.path });
    });
    return rows;
  });
