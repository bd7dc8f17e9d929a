import { applyChange, putApi } from '../change/change.ts';
import { keptApi } from '../described/read_document.ts';
import { emptyApp } from '../model/app.ts';
import { projectOf } from '../testing/build.ts';
import { pageOfHtml } from '../testing/page_of_html.ts';
import { letComeFrom, proposeComingFrom } from './coming_from.ts';
import { openCollections } from './open_collections.ts';
import { proposeData } from './propose.ts';

const row = (name: string, price: string): string => `<li><b>${name}</b><span>${price}</span></li>`;
const screen = pageOfHtml(
  `<h1>Boats</h1><ul>${row('Heron', '€ 62.00')}${row('Gannet', '€ 48.00')}${row('Dunlin', '€ 31.00')}</ul>`,
);
const list = {
  operationId: 'listBoats',
  responses: {
    200: {
      content: {
        'application/json': {
          schema: {
            type: 'array',
            items: {
              type: 'object',
              properties: { id: { type: 'string' }, name: { type: 'string' }, price: { type: 'number' } },
            },
          },
        },
      },
    },
  },
};
const { api } = keptApi(JSON.stringify({ openapi: '3.1.0', paths: { '/boats': { get: list } } }));
const drawn = projectOf(screen);
const described = { ...drawn, app: applyChange(drawn.app, putApi('boats', api!)) };
const { collections } = proposeData(drawn.design);

test('nothing comes from an API where none is described', () => {
  expect(proposeComingFrom(drawn, collections)).toEqual([]);
});

test('a collection that nobody took is taken, and comes from the API then', () => {
  const found = proposeComingFrom(described, openCollections(emptyApp, collections));
  expect(found.map(({ name, behind }) => [name, behind.list])).toEqual([['boats', 'listBoats']]);
  const app = applyChange(described.app, letComeFrom(described, found));
  expect(Object.values(app.collections)).toMatchObject([
    { name: 'boats', rows: [{}, {}, {}], behind: { api: 'boats', list: 'listBoats' } },
  ]);
  const after = { ...described, app };
  expect(proposeComingFrom(after, openCollections(app, collections))).toEqual([]);
});

test('one that is taken stays as it is but for where its records come from', () => {
  const [found] = proposeComingFrom(described, collections);
  const { behind: _, ...kept } = Object.values(
    applyChange(described.app, letComeFrom(described, [found])).collections,
  )[0];
  const taken = { ...described, app: { ...described.app, collections: { boats: { ...kept, said: {} } } } };
  const [again] = proposeComingFrom(taken, openCollections(taken.app, collections));
  expect(again.proposal).toBeUndefined();
  const { collections: after } = applyChange(taken.app, letComeFrom(taken, [again]));
  expect(after).toEqual({ boats: { ...kept, said: {}, behind: again.behind } });
});
