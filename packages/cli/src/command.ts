/** How a command ends: good, with findings, or misused. */
export const EXIT = { good: 0, findings: 1, misuse: 2 } as const;

/** Wrong words on the command line, or a file that is not what it should be; said in one line, exit 2. */
export class Misuse extends Error {}

/** Where a command writes. JSON goes out, everything for people goes beside it. */
export interface Output {
  readonly out: (text: string) => void;
  readonly say: (text: string) => void;
}

export interface Command {
  readonly usage: string;
  readonly summary: string;
  readonly help: string;
  readonly run: (args: readonly string[], output: Output) => Promise<number>;
}

export interface Arguments {
  readonly paths: readonly string[];
  readonly options: Readonly<Record<string, string>>;
}

/**
 * Takes options with values (`--out FILE` or `--out=FILE`) apart from paths.
 * @throws Misuse for an option that the command does not have, or one without its value.
 */
export function parseArguments(args: readonly string[], known: readonly string[]): Arguments {
  const paths: string[] = [];
  const options: Record<string, string> = {};
  for (let i = 0; i < args.length; i++) {
    const arg = args[i];
    if (arg === '--') {
      paths.push(...args.slice(i + 1));
      break;
    }
    if (!arg.startsWith('--')) {
      paths.push(arg);
      continue;
    }
    const [name, inline] = arg.slice(2).split(/=(.*)/s);
    if (!known.includes(name))
      throw new Misuse(
        `There is no option --${name} here. Known: ${known.map((k) => `--${k}`).join(', ') || 'none'}.`,
      );
    const value = inline ?? args[++i];
    if (value === undefined) throw new Misuse(`--${name} needs a value.`);
    options[name] = value;
  }
  return { paths, options };
}
