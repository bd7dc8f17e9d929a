import { compileScript, parse } from 'vue/compiler-sfc';
import type { EmittedFile, EmittedProject } from '../emit/emitted.ts';
import { typeErrors } from './typecheck.ts';

/**
 * What is wrong with an emitted project of Vue: single-file components that its compiler does not take, and what the compiler
 * of TypeScript says of what comes of them.
 */
export function vueProblems(projects: readonly EmittedProject[]): string[] {
  // It says of markup that was read from hostile pages what only matters on a server.
  const { warn } = console;
  console.warn = () => {};
  try {
    return problemsOf(projects);
  } finally {
    console.warn = warn;
  }
}

function problemsOf(projects: readonly EmittedProject[]): string[] {
  const problems: string[] = [];
  const compiled = projects.map((project): EmittedProject => ({
    ...project,
    files: project.files.flatMap((file): EmittedFile[] => {
      if (!('text' in file) || !file.path.endsWith('.vue')) return [file];
      // What checks the types of a template reads expressions as they are written.
      const escaped = /\s(?:v-|[:@])[\w.:-]*="[^"]*&[gl]t;/.exec(file.text);
      if (escaped) problems.push(`${file.path}: an escaped sign in an expression: ${escaped[0].trim()}`);
      problems.push(
        ...unusedImports(file.text).map((name) => `${file.path}: ${name} is imported and never used`),
      );
      problems.push(...unusedProps(file.text).map((name) => `${file.path}: ${name} is given and never read`));
      try {
        const { descriptor, errors } = parse(file.text, { filename: file.path });
        problems.push(...errors.map((error) => `${file.path}: ${error.message}`));
        // One without a script is compiled as one whose script says nothing; an empty one would count as none.
        const whole = descriptor.scriptSetup
          ? descriptor
          : parse(`<script setup lang="ts">\n// Nothing.\n</script>\n${file.text}`, { filename: file.path })
              .descriptor;
        const { content } = compileScript(whole, {
          id: file.path,
          inlineTemplate: true,
          templateOptions: {
            compilerOptions: { onError: (error) => problems.push(`${file.path}: ${error.message}`) },
          },
        });
        // A name that is in no script is asked of the component, of which the compiler knows nothing.
        for (const [, name] of content.matchAll(/_ctx\.(\w+)/g))
          problems.push(`${file.path}: there is no ${name}`);
        return [{ path: `${file.path}.ts`, text: content }];
      } catch (error) {
        problems.push(`${file.path}: ${(error as Error).message}`);
        return [];
      }
    }),
  }));
  const isOfCompiler = (line: string): boolean =>
    /\.vue\.ts:/.test(line) && / is declared but |implicitly has an 'any' type/.test(line);
  return [...problems, ...typeErrors(compiled).filter((line) => !isOfCompiler(line))];
}

/** What a component imports and names nowhere else; types are left to their compiler. */
function unusedImports(text: string): string[] {
  const imports = /^import (?!type )(?:(\w+)|\{([^}]*)\})[^;]*;$/gm;
  const rest = text.replace(imports, '');
  const names = [...text.matchAll(imports)].flatMap(([, one, several = '']) => [
    ...(one ? [one] : []),
    ...several
      .split(',')
      .map((name) => name.trim())
      .filter((name) => name && !name.startsWith('type ')),
  ]);
  return names.filter((name) => !new RegExp(`\\b${name}\\b`).test(rest));
}

/** What a component says that it is given, and looks at nowhere. */
function unusedProps(text: string): string[] {
  const said =
    /export interface \w+Props \{[^}]*\}\s*const \{[^=]*(?:=[^;]*?)?\} = defineProps<\w+>\(\);/.exec(text);
  if (!said) return [];
  const rest = text.replace(said[0], '');
  const names = [...said[0].matchAll(/^ {2}(\w+)\??:/gm)].map(([, name]) => name);
  return names.filter((name) => !new RegExp(`\\b${name}\\b`).test(rest));
}
