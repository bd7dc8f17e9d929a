import { HttpError } from './errors.ts';

interface Schema<T> {
  validateSync(value: unknown, options?: object): T;
}

/**
 * Reads a request body through its schema.
 * @throws HttpError that names the field and what it should be.
 */
export function check<T>(schema: Schema<T>, body: unknown): T {
  try {
    return schema.validateSync(body, { strict: true });
  } catch (error) {
    throw new HttpError('invalid', (error as Error).message);
  }
}

/** Runs a reader of outside data and says its complaint as a bad request. */
export function readOr<T>(code: 'invalid' | 'archive-invalid', read: () => T): T {
  try {
    return read();
  } catch (error) {
    throw new HttpError(code, (error as Error).message);
  }
}
