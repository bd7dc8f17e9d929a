/** Every error that the server says by name: a stable code, a status, and what to do. */
const catalogue = {
  'not-found': 404,
  'project-missing': 404,
  'asset-missing': 404,
  invalid: 400,
  'asset-mismatch': 400,
  'asset-type': 415,
  'archive-invalid': 400,
  'nothing-to-undo': 409,
  'nothing-to-redo': 409,
  'target-unknown': 400,
  'host-refused': 421,
  'origin-refused': 403,
  'too-large': 413,
  'fetch-failed': 422,
} as const;

export type ErrorCode = keyof typeof catalogue;

export class HttpError extends Error {
  readonly code: ErrorCode;
  readonly statusCode: number;

  constructor(code: ErrorCode, message: string) {
    super(message);
    this.code = code;
    this.statusCode = catalogue[code];
  }
}
