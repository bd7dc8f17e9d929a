import { createRequire } from 'node:module';
import path from 'node:path';
import { pageScript } from './page_script.ts';

let script: Promise<string> | null = null;

/** What a published app is given where its visitors leave notes. */
export function notesScript(): Promise<string> {
  script ??= pageScript(
    "import { letNotesBeLeft } from './leave_notes.ts';\nletNotesBeLeft();",
    path.dirname(createRequire(import.meta.url).resolve('@tovel/renderer')),
  );
  return script;
}
