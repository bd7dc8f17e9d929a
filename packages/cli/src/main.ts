import { check } from './check.ts';
import { type Command, EXIT, Misuse, type Output } from './command.ts';
import { compare } from './compare.ts';
import { components } from './components.ts';
import { library } from './library.ts';
import { data } from './data.ts';
import { deliver } from './deliver.ts';
import { emit } from './emit.ts';
import { flow } from './flow.ts';
import { graph } from './graph.ts';
import { iterate } from './iterate.ts';
import { journeys } from './journeys.ts';
import { intake } from './intake.ts';
import { links } from './links.ts';
import { match } from './match.ts';
import { roles } from './roles.ts';
import { routes } from './routes.ts';
import { systemErrorInWords } from './system_errors.ts';
import { wiring } from './wiring.ts';

const commands: Readonly<Record<string, Command>> = {
  intake,
  routes,
  links,
  match,
  iterate,
  wiring,
  roles,
  components,
  library,
  data,
  graph,
  flow,
  journeys,
  check,
  compare,
  emit,
  deliver,
};

const overview = `tovel turns a pile of screens into a navigable, working front end.

${Object.values(commands)
  .map((command) => `  ${command.usage}\n      ${command.summary}`)
  .join('\n')}

JSON goes to standard output, messages to standard error.
Ends with 0 when all is good, 1 with findings, 2 when the words are wrong.
tovel COMMAND --help says more.
`;

const standard: Output = {
  out: (text) => void process.stdout.write(text),
  say: (text) => void process.stderr.write(`${text}\n`),
};

/** Runs a command line without the program's own name; returns the exit code. */
export async function main(args: readonly string[], output: Output = standard): Promise<number> {
  const [name, ...rest] = args;
  if (name === '--help' || name === '-h' || name === 'help') {
    output.out(overview);
    return EXIT.good;
  }
  const command = Object.hasOwn(commands, name ?? '') ? commands[name] : null;
  if (!command) {
    output.say(
      name ? `tovel: there is no command ${name}. Known: ${Object.keys(commands).join(', ')}.` : overview,
    );
    return EXIT.misuse;
  }
  if (rest.includes('--help') || rest.includes('-h')) {
    output.out(`${command.usage}\n\n${command.help}\n`);
    return EXIT.good;
  }
  try {
    return await command.run(rest, output);
  } catch (error) {
    const said = error instanceof Misuse ? error.message : systemErrorInWords(error);
    if (said === null) throw error;
    output.say(`tovel ${name}: ${said}`);
    return EXIT.misuse;
  }
}
