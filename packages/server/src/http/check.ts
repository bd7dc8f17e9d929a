import type { ErrorCode } from '@tovel/core';
import { HttpError } from './errors.ts';

/** Runs a reader of outside data and says its complaint as a bad request. */
export function readOr<T>(code: Extract<ErrorCode, 'invalid' | 'archive-invalid'>, read: () => T): T {
  try {
    return read();
  } catch (error) {
    throw new HttpError(code, (error as Error).message);
  }
}
