import type { FastifyInstance, FastifyReply, FastifyRequest, HTTPMethods } from 'fastify';
import { type Operation, type OperationName, operations } from '@tovel/core';
import { HttpError } from './errors.ts';

interface Readable<T = unknown> {
  validateSync(value: unknown, options?: object): T;
}

type Read<S> = S extends Readable<infer T> ? T : never;
type ReadAll<F> = { readonly [K in keyof F]: Read<F[K]> };
type Of<N extends OperationName> = (typeof operations)[N];
type BodyOf<O> = O extends { readonly body: 'bytes' }
  ? Buffer
  : O extends { readonly body: infer S }
    ? Read<S>
    : undefined;
type AnswerOf<O> = O extends { readonly answer: infer A }
  ? A extends Readable<infer T>
    ? T
    : unknown
  : never;

/** What was asked, through the schemas of the operation. */
export interface Asked<N extends OperationName> {
  readonly params: Of<N> extends { readonly params: infer P } ? ReadAll<P> : object;
  readonly query: Of<N> extends { readonly query: infer Q } ? ReadAll<Q> : object;
  readonly body: BodyOf<Of<N>>;
  readonly request: FastifyRequest;
  readonly reply: FastifyReply;
}

/** Entries of a long list that are looked at on their way out; a server that writes wrong ones does so from the first. */
const LOOKED_AT = 100;

/**
 * Answers an operation: what is asked is read through its schemas, and so is what is answered.
 * @param handle gives the answer; a reply that it sent itself is left as it is.
 */
export function route<N extends OperationName>(
  app: FastifyInstance,
  name: N,
  handle: (asked: Asked<N>) => Promise<AnswerOf<Of<N>> | FastifyReply | void> | FastifyReply | void,
): void {
  const operation: Operation = operations[name];
  app.route({
    method: operation.method as HTTPMethods,
    url: operation.path.replace(/\{(\w+)\}/g, ':$1'),
    ...(operation.bodyLimit ? { bodyLimit: operation.bodyLimit } : {}),
    config: { cost: operation.cost },
    handler: async (request, reply) => {
      const asked = {
        params: readAll(operation.params, request.params, 'address'),
        query: readAll(operation.query, request.query, 'query'),
        body: bodyOf(operation, request.body),
        request,
        reply,
      } as unknown as Asked<N>;
      const answer = await handle(asked);
      if (reply.sent || answer === reply) return reply;
      void reply.code(operation.status);
      if (operation.answer === null) return reply.send();
      if ('validateSync' in operation.answer) checkAnswer(name, operation.answer as Readable, answer);
      return reply.send(answer);
    },
  });
}

function readAll(
  schemas: Operation['params'],
  given: unknown,
  where: string,
): Readonly<Record<string, unknown>> {
  const read: Record<string, unknown> = {};
  const values = (given ?? {}) as Record<string, unknown>;
  for (const [key, schema] of Object.entries(schemas ?? {})) {
    const value = Object.hasOwn(values, key) ? values[key] : undefined;
    try {
      if (Array.isArray(value)) throw new Error(`${key} is said more than once`);
      read[key] = (schema as unknown as Readable).validateSync(value === '' ? undefined : value);
    } catch (error) {
      throw new HttpError('invalid', `${where}: ${key}: ${(error as Error).message}`);
    }
  }
  return read;
}

function bodyOf(operation: Operation, body: unknown): unknown {
  if (operation.body === undefined) return undefined;
  if (operation.body === 'bytes') {
    if (Buffer.isBuffer(body)) return body;
    throw new HttpError('invalid', 'Send the bytes of the file, as application/octet-stream.');
  }
  if (body === undefined || body === null || typeof body !== 'object')
    throw new HttpError('invalid', 'Send a JSON object, as application/json.');
  try {
    return (operation.body as unknown as Readable).validateSync(body, { strict: true });
  } catch (error) {
    throw new HttpError('invalid', (error as Error).message);
  }
}

function checkAnswer(name: string, schema: Readable, answer: unknown): void {
  const part = Array.isArray(answer) ? answer.slice(0, LOOKED_AT) : answer;
  try {
    schema.validateSync(part, { strict: true });
  } catch (error) {
    throw new Error(`the answer of “${name}” is not what it is described as: ${(error as Error).message}`);
  }
}

/** Ends when whoever asked leaves before the answer. Of the answer, not of its connection, which many answers share. */
export function leftSignal({ raw }: FastifyReply): AbortSignal {
  const controller = new AbortController();
  raw.once('close', () => {
    if (!raw.writableFinished) controller.abort();
  });
  return controller.signal;
}
