/** What says how large an icon is, or that it turns, and not what it shows. */
const HOW =
  /^(\d?x|\d+|fw|lg|md|sm|xs|xl|spin|pulse|rotate.*|flip.*|stack.*|icons?|solid|regular|light|brands)$/;
/** What comes before the dash in classes that set looks of any element. */
const LOOKS = /^(text|bg|border|float|font|align|display|col|row|btn|nav|card|badge|[mpdwh][trblxyse]?)$/;

/**
 * What an icon that is written by a font shows, by its classes: the word behind the name of its family, as in
 * `fas fa-tachometer-alt`, `tim-icons icon-coins`, `glyphicon glyphicon-user`. `icon` where no class says it.
 */
export function iconName(classes: string): string {
  const all = classes.split(/\s+/).filter(Boolean);
  const told = all.flatMap((name) => {
    const [, family, word] = /^([a-z]+)-([a-z][\w-]*)$/.exec(name) ?? [];
    return family && !HOW.test(word) && !LOOKS.test(family) ? [{ family, word }] : [];
  });
  // A family that is also a class by itself is surely one; else names of families are short.
  const sure = told.find(({ family }) => all.includes(family) || family === 'icon');
  const found = sure ?? told.find(({ family }) => family.length <= LONGEST_FAMILY);
  return found?.word.replace(/-/g, ' ') ?? 'icon';
}
const LONGEST_FAMILY = 4;
