import { elementsByKey, proposeData, screensByKey } from '@tovel/core';
import { type Command, EXIT, parseArguments } from './command.ts';
import { readDesign } from './files.ts';

export const data: Command = {
  usage: 'tovel data design.json',
  summary: 'prints what stands behind the screens: collections, forms, actions, bindings',
  help: `Prints {collections, forms, actions, bindings}, each with confidence (0 to 1) and reason. A place is
{screen, path, id}: the file that the screen came from, the element's path in it, and its id.
  collections  {name, places, fields: [{name, label, type}], records}; a place holds the rows
  forms        {…place, purpose, fields: [{path, id, label, field, type, required}], submit}
  actions      {…place, does}: sort, previous, next, page, search, filter, open, close, expand, …
  bindings     {…place, shows}: count(tools), range(tools), tool.name
Takes a design document or a .tovel file.`,
  async run(args, output) {
    const { paths } = parseArguments(args, []);
    const design = await readDesign(paths[0]);
    const screens = screensByKey(design);
    const within = (screen: string, key: string) => {
      const { source } = elementsByKey(screens.get(screen)!).get(key)!;
      return { path: source.path, id: source.id ?? null };
    };
    const place = (screen: string, key: string) => ({
      screen: screens.get(screen)!.source.file,
      ...within(screen, key),
    });
    const found = proposeData(design);
    const sure = (confidence: number): number => Math.round(confidence * 100) / 100;
    const printed = {
      collections: found.collections.map(({ name, places, fields, records, confidence, reason }) => ({
        name,
        places: places.map((one) => place(one.screen, one.within)),
        fields: fields.map(({ name: field, label, type }) => ({ name: field, label, type })),
        records,
        confidence: sure(confidence),
        reason,
      })),
      forms: found.forms.map(({ screen, element, purpose, fields, submit, confidence, reason }) => ({
        ...place(screen, element),
        purpose,
        fields: fields.map(({ element: field, ...said }) => ({ ...within(screen, field), ...said })),
        submit: submit && { ...within(screen, submit.element), label: submit.label },
        confidence: sure(confidence),
        reason,
      })),
      actions: found.actions.map(({ screen, element, does, confidence, reason }) => ({
        ...place(screen, element),
        does,
        confidence: sure(confidence),
        reason,
      })),
      bindings: found.bindings.map(({ screen, element, shows, confidence, reason }) => ({
        ...place(screen, element),
        shows,
        confidence: sure(confidence),
        reason,
      })),
    };
    output.out(`${JSON.stringify(printed, null, 1)}\n`);
    return EXIT.good;
  },
};
