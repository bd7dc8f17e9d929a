import { readFile } from 'node:fs/promises';
import { matchApi, proposeData, readApi, soughtCollection } from '@tovel/core';
import { type Command, EXIT, Misuse, parseArguments } from './command.ts';
import { placeOf, readDesign } from './files.ts';

export const data: Command = {
  usage: 'tovel data design.json [--api openapi.yaml]',
  summary: 'prints what stands behind the screens: collections, forms, actions, bindings',
  help: `Prints {collections, forms, actions, bindings}, each with confidence (0 to 1) and reason. A place is
{screen, path, id}: the file that the screen came from, the element's path in it, and its id.
  collections  {name, places, fields: [{name, label, type}], records}; a place holds the rows
  forms        {…place, purpose, fields: [{path, id, label, field, type, required}], submit}
  actions      {…place, does}: sort, previous, next, page, search, filter, open, close, expand, …
  bindings     {…place, shows}: count(tools), range(tools), tool.name
With --api, the OpenAPI document (3.0 or 3.1, JSON or YAML) is read too:
  api          {title, operations: [{id, method, path, does, reason, parameters, …}], matches, problems}
matches says which operation lists the records of which collection, field by field.
Takes a design document or a .tovel file. Ends with 1 when the API could not be read whole.`,
  async run(args, output) {
    const { paths, options } = parseArguments(args, ['api']);
    const design = await readDesign(paths[0]);
    const place = (key: string) => placeOf(design, key);
    const within = (key: string) => {
      const { path, id } = place(key);
      return { path, id };
    };
    const found = proposeData(design);
    const sure = (confidence: number): number => Math.round(confidence * 100) / 100;
    const printed = {
      collections: found.collections.map(({ name, places, fields, records, confidence, reason }) => ({
        name,
        places: places.map((one) => place(one.within)),
        fields: fields.map(({ name: field, label, type }) => ({ name: field, label, type })),
        records,
        confidence: sure(confidence),
        reason,
      })),
      forms: found.forms.map(({ element, purpose, fields, submit, confidence, reason }) => ({
        ...place(element),
        purpose,
        fields: fields.map(({ element: field, ...said }) => ({ ...within(field), ...said })),
        submit: submit && { ...within(submit.element), label: submit.label },
        confidence: sure(confidence),
        reason,
      })),
      actions: found.actions.map(({ element, does, confidence, reason }) => ({
        ...place(element),
        does,
        confidence: sure(confidence),
        reason,
      })),
      bindings: found.bindings.map(({ element, shows, confidence, reason }) => ({
        ...place(element),
        shows,
        confidence: sure(confidence),
        reason,
      })),
    };
    if (options.api === undefined) {
      output.out(`${JSON.stringify(printed, null, 1)}\n`);
      return EXIT.good;
    }
    const text = await readFile(options.api, 'utf8').catch(() => {
      throw new Misuse(`There is no file ${options.api}.`);
    });
    const api = readApi(text);
    for (const { at, message } of api.problems) output.say(`${options.api}${at}: ${message}`);
    const matches = matchApi(api, found.collections.map(soughtCollection));
    output.out(`${JSON.stringify({ ...printed, api: { ...api, matches } }, null, 1)}\n`);
    return api.problems.length ? EXIT.findings : EXIT.good;
  },
};
