import { all, applyChange, type Change, putCollection, putDetail } from '../change/change.ts';
import type { Collection } from '../model/app.ts';
import type { Project } from '../model/project.ts';
import { projectOf, screenWith } from './build.ts';

const text = (...names: readonly string[]): Collection['fields'] =>
  names.map((name) => ({ name, type: 'text' }));

/** Tools, one of which a screen shows, and loans, one of which a row of another screen shows. */
export function library(...more: readonly Change[]): Project {
  const bare = projectOf(
    screenWith('tool', 'Reserve', 'Note'),
    screenWith('loans', 'Saw', 'Drill', 'Return'),
  );
  const rows = ['loans:0', 'loans:1'].map((element) => ({
    element,
    within: 'loans:',
    shows: { name: element },
  }));
  const { screens } = bare.app;
  return {
    ...bare,
    app: applyChange(
      bare.app,
      all([
        putCollection('tools', {
          name: 'tools',
          fields: text('name', 'status', 'note'),
          rows: [],
          more: [
            { id: '1', says: { name: 'Saw', status: 'free' } },
            { id: '2', says: { name: 'Drill', status: 'out' } },
          ],
        }),
        putCollection('loans', { name: 'loans', fields: text('name', 'due', 'note'), rows }),
        putDetail('tool', { collection: 'tools', parameter: 'toolId' }),
        {
          kind: 'put',
          table: 'screens',
          key: 'tool',
          value: { ...screens.tool, route: '/tools/:toolId', params: { toolId: 'saw' } },
        },
        ...more,
      ] as Change[]),
    ),
  };
}

/** The text of a file of an emitted project; nothing where there is none. */
export const textIn = (
  { files }: { readonly files: readonly { readonly path: string }[] },
  path: string,
): string => {
  const found = files.find((file) => file.path === path);
  return found && 'text' in found ? String(found.text) : '';
};
