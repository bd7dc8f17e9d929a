import { createRequire } from 'node:module';
import path from 'node:path';
import { pageScript } from './page_script.ts';

const scripts = new Map<string, Promise<string>>();

/** A module that takes from those for pages, as one script; made once. */
function scriptOf(code: string): Promise<string> {
  let script = scripts.get(code);
  if (!script) {
    const folder = path.dirname(createRequire(import.meta.url).resolve('@tovel/renderer'));
    scripts.set(code, (script = pageScript(code, folder)));
  }
  return script;
}

/** A script that calls what one of the modules for pages exports. */
const calling = (module: string, name: string, ...given: readonly string[]): Promise<string> =>
  scriptOf(
    `import { ${name} } from './in_page/${module}';\n${name}(${given.map((one) => JSON.stringify(one)).join(', ')});`,
  );

/** What a published app is given where its visitors leave notes. */
export const notesScript = (): Promise<string> => calling('leave_notes.ts', 'letNotesBeLeft');

/** What makes a page answer what it is to those who hear it, as `tovelListening`; axe-core has to be there. */
export const listeningScript = (): Promise<string> =>
  scriptOf(`import { listen } from './in_page/listening.ts';\nglobalThis.tovelListening = listen();`);

/** What Run puts beside a generated app, and only there; the app's code knows nothing of it. */
export const bridgeScript = (appOrigin: string): Promise<string> =>
  calling('bridge/bridge.ts', 'startBridge', appOrigin);

/** What knows the modules of an app in its page, as `tovelModules`. */
export const modulesScript = (): Promise<string> =>
  scriptOf(
    `import { startModules } from './in_page/app_modules.ts';\nglobalThis.tovelModules = startModules;`,
  );
