import { readApi } from './read_document.ts';

const document = (schemes: object, security: unknown, own?: unknown): string =>
  JSON.stringify({
    openapi: '3.1.0',
    info: { title: 'Sheds', version: '1' },
    security,
    paths: {
      '/tools': { get: { operationId: 'listTools', responses: {}, ...(own ? { security: own } : {}) } },
    },
    components: { securitySchemes: schemes },
  });

test.each([
  [
    'a key in a header',
    { type: 'apiKey', in: 'header', name: 'X-Key' },
    { kind: 'key', in: 'header', as: 'X-Key' },
  ],
  [
    'a key in the address',
    { type: 'apiKey', in: 'query', name: 'key' },
    { kind: 'key', in: 'query', as: 'key' },
  ],
  ['a cookie', { type: 'apiKey', in: 'cookie', name: 'sid' }, { kind: 'key', in: 'cookie', as: 'sid' }],
  ['a token', { type: 'http', scheme: 'Bearer' }, { kind: 'bearer' }],
  ['a password', { type: 'http', scheme: 'basic' }, { kind: 'basic' }],
  [
    'OAuth 2',
    {
      type: 'oauth2',
      flows: { authorizationCode: { authorizationUrl: 'https://id.example/in', tokenUrl: 'x' } },
    },
    { kind: 'bearer', signIn: 'https://id.example/in' },
  ],
  [
    'OpenID Connect',
    { type: 'openIdConnect', openIdConnectUrl: 'https://id.example/about' },
    { kind: 'bearer', signIn: 'https://id.example/about' },
  ],
])('%s is read', (_, scheme, expected) => {
  const { credentials, operations, problems } = readApi(document({ one: scheme }, [{ one: [] }]));
  expect(credentials).toEqual([{ name: 'one', ...expected }]);
  expect(operations[0].credentials).toEqual(['one']);
  expect(problems).toEqual([]);
});

test.each([
  ['no type', {}, /expected a type/],
  ['no scheme', 7, /expected a security scheme/],
  ['a name that is none', { type: 'apiKey', in: 'header', name: "x': evil() //" }, /a key has a name/],
  ['what has no words', { type: 'http', scheme: { toString: 1, valueOf: 1 } }, /“bearer” and “basic”/],
  ['another kind of HTTP authentication', { type: 'http', scheme: 'digest' }, /“bearer” and “basic”/],
])('%s is told with its place', (_, scheme, says) => {
  const { credentials, problems } = readApi(document({ 'a/b': scheme }, []));
  expect(credentials).toEqual([]);
  expect(problems).toEqual([
    { at: '/components/securitySchemes/a~1b', message: expect.stringMatching(says) },
  ]);
});

test('what an operation says goes before what the document says, and one that asks for nothing is told', () => {
  const schemes = { one: { type: 'http', scheme: 'basic' }, two: { type: 'http', scheme: 'bearer' } };
  const asked = (own?: unknown) => readApi(document(schemes, [{ one: [] }], own)).operations[0].credentials;
  expect(asked()).toEqual(['one']);
  expect(asked([{ two: [] }, { one: [], two: [] }])).toEqual(['two', 'one']);
  expect(asked([])).toEqual([]);
});
