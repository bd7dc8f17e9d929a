import fc from 'fast-check';
import { parseExpression } from '../expression/language.ts';
import { valueOf } from '../expression/value_of.ts';
import type { CollectionProposal } from './collections.ts';
import { figureFor, printFigure } from './figures.ts';

const TRIPS = [
  { boat: 'Otter', seats: '4', price: '€ 62.00', state: 'Out' },
  { boat: 'Heron', seats: '2', price: '€ 38.50', state: 'Back' },
  { boat: 'Teal', seats: '6', price: '€ 91.00', state: 'Late' },
  { boat: 'Swift', seats: '2', price: '€ 38.50', state: 'Out' },
];
const FIELDS = [
  { name: 'boat', type: 'text' },
  { name: 'seats', type: 'number' },
  { name: 'price', type: 'money' },
  { name: 'state', type: 'one-of' },
] as const;
const proposal = (records: readonly Readonly<Record<string, string>>[]): CollectionProposal => ({
  name: 'trips',
  fields: FIELDS as unknown as CollectionProposal['fields'],
  places: [{ screen: 's', within: 'list', rows: [], shows: {}, records }],
  records: records.length,
  confidence: 0.9,
  reason: '',
});
const trips = proposal(TRIPS);

test.each([
  ['2', 'Trips out', "count(filter(trips, (trip) => trip.state === 'Out'))"],
  ['1', 'Late', "count(filter(trips, (trip) => trip.state === 'Late'))"],
  // The others are on other pages.
  ['12', 'Trips back', "count(filter(trips, (trip) => trip.state === 'Back'))"],
  ['14', 'Seats taken', 'sum(trips, (trip) => trip.seats)'],
  ['€ 230.00', 'Earned', 'sum(trips, (trip) => trip.price)'],
  ['12', 'Late', null],
  ['3', 'Boats outside', null],
  ['2', 'Lateness', null],
  ['230', 'Earned', null],
  ['Out', 'Trips', null],
])('%s beside “%s”', (text, label, shows) => {
  const found = figureFor(text, label, [trips]);
  expect(found && printFigure(found.figure, 'trips')).toBe(shows);
});

test('few records, and small sums, say nothing', () => {
  expect(figureFor('6', 'In all', [proposal(TRIPS.slice(0, 2))])).toBeNull();
  expect(figureFor('100', 'In all', [proposal([{ ...TRIPS[0], seats: '100' }])])).toBeNull();
});

test('a record that is drawn in two places counts once', () => {
  const twice = { ...trips, places: [...trips.places, ...trips.places] };
  expect(figureFor('14', 'Seats', [twice])?.figure).toEqual({ kind: 'sum', of: 'trips', field: 'seats' });
});

test('what is found comes to what was drawn', () => {
  const record = fc.record({
    boat: fc.constant('Otter'),
    seats: fc.integer({ min: 0, max: 40 }).map(String),
    price: fc.integer({ min: 1, max: 9000 }).map((cents) => `€ ${(cents / 100).toFixed(2)}`),
    state: fc.constantFrom('Out', 'Back', "Skipper's"),
  });
  const label = fc.constantFrom('Trips out', 'Back', "Skipper's", 'Seats', 'Earned');
  fc.assert(
    fc.property(fc.array(record, { minLength: 1, maxLength: 6 }), label, (records, said) => {
      const seats = records.reduce((sum, one) => sum + Number(one.seats), 0);
      for (const text of [String(seats), String(records.filter(({ state }) => state === 'Out').length)]) {
        const found = figureFor(text, said, [proposal(records)]);
        if (!found || found.confidence < 0.7) continue;
        const names = { variables: {}, lists: {}, collections: { trips: FIELDS } };
        const parsed = parseExpression(printFigure(found.figure, 'trips'), names);
        if (parsed.problem) throw new Error(parsed.problem.message);
        const value = valueOf(parsed.expression, { records: { trips: records } });
        expect(Number(value)).toBeCloseTo(Number(text));
      }
    }),
  );
});
