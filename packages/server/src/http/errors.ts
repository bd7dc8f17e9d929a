import { type ErrorCode, errorStatus } from '@tovel/core';

/** An error that is answered by its code, with its status and these words. */
export class HttpError extends Error {
  readonly code: ErrorCode;
  readonly statusCode: number;
  /** Seconds after which to ask again. */
  readonly retryAfter?: number;

  constructor(code: ErrorCode, message: string, retryAfter?: number) {
    super(message);
    this.code = code;
    this.statusCode = errorStatus(code);
    if (retryAfter !== undefined) this.retryAfter = retryAfter;
  }
}

/** Errors that mean that the database cannot be reached, is ending or has just begun. */
const AWAY =
  /^(PROTOCOL_CONNECTION_LOST|ECONNREFUSED|ECONNRESET|ENOTFOUND|EPIPE|ETIMEDOUT|ER_SERVER_SHUTDOWN|ER_CON_COUNT_ERROR|ER_NORMAL_SHUTDOWN|ER_CONNECTION_KILLED|ER_QUERY_INTERRUPTED)$/;
/** Errors of a full disk or a server that cannot write. */
const FULL =
  /^(ER_RECORD_FILE_FULL|ER_DISK_FULL|ER_ERROR_ON_WRITE|ER_OPTION_PREVENTS_STATEMENT|ER_CANT_CREATE_FILE|ER_GET_ERRNO)$/;

/** What to answer where the database fails; null for any other error. */
export function databaseError(error: unknown): HttpError | null {
  const { code = '', fatal, message = '' } = error as { code?: string; fatal?: boolean; message?: string };
  if (FULL.test(code) || /No space left|disk full/i.test(message))
    return new HttpError(
      'unavailable',
      'The disk is full, so nothing can be saved. Free some space; what waits is saved then.',
      5,
    );
  if (
    AWAY.test(code) ||
    (fatal === true && /^(PROTOCOL|ER_)/.test(code)) ||
    /closed state|Pool is closed/.test(message)
  )
    return new HttpError(
      'unavailable',
      'The database is not there at the moment; it is being started again.',
      1,
    );
  return null;
}
