import fc from 'fast-check';
import { loadedRuntime } from '../../testing/loaded_runtime.ts';

type Words = Readonly<Record<string, string | undefined>>;
/** What the delivered code says of a list, as far as it is asked here. */
interface Listing {
  readonly rows: readonly Tool[];
  readonly found: number;
  readonly hasNext: boolean;
  searchFor(text: string): void;
  sortBy(field: string): void;
  filterBy(field: string, value?: string): void;
  goTo(page: number | string): void;
  showMore(): void;
}
interface Records {
  all(): readonly Tool[];
  find(id: string): Tool | undefined;
  add(values: Partial<Tool>): Tool;
  change(which: string | ((tool: Tool) => boolean), values: Partial<Tool>): void;
  remove(which: string | ((tool: Tool) => boolean)): void;
  reset(): void;
  subscribe(tell: () => void): () => void;
}

const { listingOf } = loadedRuntime<{
  listingOf(records: readonly Tool[], words: Words, options: object, write: (words: Words) => void): Listing;
}>('records/listing.ts');
const { createRecords } = loadedRuntime<{
  createRecords(name: string, first: readonly Tool[], like: Omit<Tool, 'id'>): Records;
}>('records/records.ts');

interface Tool {
  id: string;
  name: string;
  price: string;
  due: string;
  status: string;
}

const TOOLS: readonly Tool[] = [
  { id: 'saw', name: 'Saw', price: '£12.50', due: '3 March 2026', status: 'free' },
  { id: 'drill', name: 'Cordless drill', price: '£4', due: '12 January 2026', status: 'out' },
  { id: 'ladder', name: 'Ladder', price: '£1,100', due: 'soon', status: 'free' },
  { id: 'press', name: 'apple press', price: '', due: '30 June 2025', status: 'in repair' },
  { id: 'saw-2', name: 'Saw 10', price: '£7', due: '1 May 2026', status: 'Out' },
];
const OPTIONS = {
  searched: ['name', 'status'],
  sortedAs: { price: 'number', due: 'date' },
  filtered: ['status', 'name'],
  within: ['name'],
  perPage: 2,
};

/** What a list says after what is done to it, one after the other. */
function after(words: Words, ...deeds: ((listing: Listing) => void)[]): Listing & { readonly ids: string } {
  let now = words;
  const look = () =>
    listingOf(TOOLS, now, OPTIONS, (next) => {
      now = next;
    });
  for (const deed of deeds) deed(look());
  const seen = look();
  return { ...seen, ids: seen.rows.map(({ id }) => id).join(' ') };
}

test.each<[string, Words, Parameters<typeof after>[1][], string]>([
  ['the first page as the records are', {}, [], 'saw drill'],
  ['the next page', {}, [(list) => list.goTo('next')], 'ladder press'],
  ['the last page', {}, [(list) => list.goTo('last')], 'saw-2'],
  ['no further than the last', { page: '3' }, [(list) => list.goTo('next')], 'saw-2'],
  ['no page that is not there', { page: '99' }, [], 'saw-2'],
  ['nothing of a page that is no number', { page: 'x' }, [], 'saw drill'],
  ['as many again', {}, [(list) => list.showMore()], 'saw drill ladder press'],
  ['what is looked for, whatever letters', {}, [(list) => list.searchFor('SAW')], 'saw saw-2'],
  ['all words somewhere', {}, [(list) => list.searchFor('free saw')], 'saw'],
  ['a search begins at the first page', { page: '3' }, [(list) => list.searchFor('a')], 'saw ladder'],
  ['by name, numbers in it as numbers', {}, [(list) => list.sortBy('name')], 'press drill'],
  ['the other way round', {}, [(list) => list.sortBy('name'), (list) => list.sortBy('name')], 'saw-2 saw'],
  ['by price', { more: '3' }, [], 'saw drill ladder press saw-2'],
  ['what says this', {}, [(list) => list.filterBy('status', 'out')], 'drill saw-2'],
  ['what holds this', {}, [(list) => list.filterBy('name', 'press')], 'press'],
  ['all again', { status: 'out' }, [(list) => list.filterBy('status')], 'saw drill'],
  ['other words of the address are not its own', { show: 'menu', lang: 'en' }, [], 'saw drill'],
])('a list shows %s', (_, words, deeds, ids) => expect(after(words, ...deeds).ids).toBe(ids));

test('prices and dates are sorted as what they are, and what is none of it by what it says', () => {
  const all = { ...OPTIONS, perPage: undefined };
  const ids = (sort: string): string[] => listingOf(TOOLS, { sort }, all, () => {}).rows.map(({ id }) => id);
  expect(ids('price').slice(1)).toEqual(['drill', 'saw-2', 'saw', 'ladder']);
  expect(ids('due').filter((id) => id !== 'ladder')).toEqual(['press', 'drill', 'saw', 'saw-2']);
});

test('pages together hold each record that fits once, in order', () => {
  fc.assert(
    fc.property(
      fc.record({
        search: fc.constantFrom('', 'a', 'saw'),
        sort: fc.constantFrom('', 'name', '-name', 'price', '-due', 'nothing'),
        status: fc.constantFrom('', 'out', 'free', 'lost'),
      }),
      (words) => {
        const whole = listingOf(TOOLS, words, { ...OPTIONS, perPage: undefined }, () => {});
        const pages = Array.from({ length: whole.found ? Math.ceil(whole.found / 2) : 1 }, (_, i) =>
          listingOf(TOOLS, { ...words, page: String(i + 1) }, OPTIONS, () => {}),
        );
        expect(pages.flatMap(({ rows }) => rows)).toEqual(whole.rows);
        expect(pages.map(({ hasNext }) => hasNext)).toEqual(pages.map((_, i) => i < pages.length - 1));
      },
    ),
  );
});

test('what is done to records is kept, and can be taken back', () => {
  const kept = new Map<string, string>();
  const storage = {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
  };
  Object.assign(globalThis, { localStorage: storage });
  const like = { name: '', price: '', due: '', status: 'free' };
  const tools = createRecords('tools', TOOLS, like);
  let told = 0;
  const leave = tools.subscribe(() => told++);
  const { id } = tools.add({ name: 'Axe' });
  expect(tools.find(id)).toEqual({ ...like, id, name: 'Axe' });
  expect(tools.find('nobody')).toBeUndefined();
  tools.change('saw', { status: 'out' });
  tools.change((tool) => tool.status === 'free' && tool.name === 'Axe', { due: 'today' });
  tools.remove((tool) => tool.id === 'drill');
  expect(told).toBe(4);
  leave();
  const again = createRecords('tools', TOOLS, like);
  expect(again.all()).toEqual(tools.all());
  expect(again.all()[0]).toEqual({ ...like, id, name: 'Axe', due: 'today' });
  expect(again.all().find((one) => one.id === 'saw')?.status).toBe('out');
  expect(again.all().some((one) => one.id === 'drill')).toBe(false);
  tools.reset();
  expect(tools.all()).toEqual(TOOLS);
  kept.set('/records/tools', 'no JSON');
  expect(createRecords('tools', TOOLS, like).all()).toEqual(TOOLS);
});
