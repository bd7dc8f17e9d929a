/** Every error that the server says by name: a stable code, its status, and what to do about it. */
export const errors = {
  invalid: {
    status: 400,
    todo: 'Send what the description of the operation asks for; the message names the field.',
  },
  'archive-invalid': {
    status: 400,
    todo: 'Open a .tovel file that Tovel wrote; the message names the place.',
  },
  'asset-mismatch': { status: 400, todo: 'Send the file again; it was damaged on its way.' },
  'file-missing': { status: 404, todo: 'Ask for a file that the code has; without one all of it comes.' },
  'target-unknown': { status: 400, todo: 'Ask for one of the targets that the message names.' },
  'origin-refused': { status: 403, todo: 'Send changes from the application itself.' },
  'not-found': { status: 404, todo: 'Look for it where the application links to it.' },
  'project-missing': { status: 404, todo: 'Restore the project on the Projects page if it was deleted.' },
  'asset-missing': { status: 404, todo: 'Bring the batch in again.' },
  behind: { status: 409, todo: 'Take in what was missed and say the step again, if it is still meant.' },
  'nothing-to-undo': { status: 409, todo: 'There is no step to take back.' },
  'nothing-to-redo': { status: 409, todo: 'There is no step to make again.' },
  'step-in-the-way': { status: 409, todo: 'Take back the later steps that the message names first.' },
  'too-large': { status: 413, todo: 'Bring it in in parts.' },
  'asset-type': { status: 415, todo: 'Bring in a file of a kind that Tovel reads.' },
  'host-refused': { status: 421, todo: 'Open the address that Tovel printed when it started.' },
  'compare-failed': { status: 422, todo: 'The message says what could not be drawn; nothing was changed.' },
  'library-failed': { status: 422, todo: 'Choose the folder that holds the sources of the components.' },
  'publish-failed': {
    status: 422,
    todo: 'Do what the message says; what was published before is served as before.',
  },
  'repository-failed': { status: 422, todo: 'Do what the message says; nothing was changed.' },
  'repository-moved': { status: 409, todo: 'Look at what the branch holds now, and push again.' },
  'repository-asks': { status: 409, todo: 'Say which side counts, for each of what is asked.' },
  'fetch-failed': { status: 422, todo: 'Check the address; the message says what went wrong.' },
  busy: { status: 429, todo: 'Wait as many seconds as Retry-After says, and ask again; nothing was lost.' },
  failed: { status: 500, todo: 'Nothing was changed. Look into the log of the server.' },
  unavailable: { status: 503, todo: 'The database is not there; it is being started again. Ask again soon.' },
} as const;

export type ErrorCode = keyof typeof errors;

export const errorStatus = (code: ErrorCode): number => errors[code].status;
