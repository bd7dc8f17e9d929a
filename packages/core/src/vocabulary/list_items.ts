/** The items of a list, at the commas that stand in no brackets. */
export function listItems(value: string): string[] {
  const items: string[] = [];
  let [depth, start] = [0, 0];
  for (let i = 0; i <= value.length; i++) {
    if (value[i] === '(') depth++;
    else if (value[i] === ')') depth--;
    else if (i === value.length || (value[i] === ',' && depth === 0)) {
      items.push(value.slice(start, i).trim());
      start = i + 1;
    }
  }
  return items;
}
