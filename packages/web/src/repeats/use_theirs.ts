import {
  type App,
  type Component,
  extractionOf,
  type Library,
  libraryKey,
  putComponent,
  putLibrary,
  proposeTheirs,
  type SourceFile,
  SURE_THEIRS,
  type TheirProposal,
  all,
} from '@tovel/core';
import { useMutation } from '@tanstack/react-query';
import { useMemo } from 'react';
import { api } from '../api/client';
import { filesInInput } from '../intake/run_intake';
import { useProject } from '../project/context';

/** Files that are read of a library: what declares components, and what these are drawn with. */
const READ = /\.(tsx?|jsx?|css|json|svg)$/;
const BESIDE = /(^|\/)(node_modules|\.git|dist|build|coverage|__tests__)\/|\.(test|spec|stories)\.[jt]sx?$/;
const LARGEST = 2_000_000;
const MOST_FILES = 5000;

/** Which of the team's own components the drawn ones may be, by the id of the drawn one. */
export type TheirsFound = ReadonlyMap<string, readonly TheirProposal[]>;

/** Works that out, once for the view: all drawn components are held against all of the team's own. */
export function useTheirs(): TheirsFound {
  const { app, plan } = useProject();
  return useMemo(
    () => (Object.keys(app.libraries).length ? proposeTheirs(extractionOf(plan), app) : new Map()),
    [app, plan],
  );
}

/** Proposals that are sure and have not been answered yet. */
export const sureTheirs = (theirs: TheirsFound, { components }: Pick<App, 'components'>): TheirProposal[] =>
  [...theirs].flatMap(([id, [first]]) =>
    first.confidence >= SURE_THEIRS && !first.missing.length && !components[id].theirs ? [first] : [],
  );

/** Reads the components of a folder, and keeps what they are with the project. */
export function useLibraryReading() {
  const { session } = useProject();
  return useMutation({
    mutationFn: async (list: FileList) => {
      const name = list[0]?.webkitRelativePath.split('/')[0] ?? '';
      return api.readLibrary(name, await sourcesOf(list));
    },
    onSuccess: ({ library }) =>
      session.change(`Read the components of ${library.name}`, putLibrary(libraryKey(library), library)),
  });
}

/** @throws Error in words where there is nothing that could be read */
async function sourcesOf(list: FileList): Promise<SourceFile[]> {
  const wanted = filesInInput(list).filter(
    ({ path, file }) => READ.test(path) && !BESIDE.test(path) && file.size <= LARGEST,
  );
  if (!wanted.some(({ path }) => /\.tsx?$/.test(path)))
    throw new Error(
      'There is no TypeScript source in this folder. Choose the one that holds your components.',
    );
  if (wanted.length > MOST_FILES)
    throw new Error(`These are ${wanted.length} files. Choose the folder of the components alone.`);
  return Promise.all(wanted.map(async ({ path, file }) => ({ path, text: await file.text() })));
}

/** A component that is written as it is drawn. */
export const asDrawn = (component: Component): Component =>
  Object.fromEntries(Object.entries(component).filter(([name]) => name !== 'theirs')) as unknown as Component;

/** What is done to libraries and to what is taken from them. */
export function useTheirDeeds() {
  const { app, session } = useProject();
  return {
    takeAll: (proposals: readonly TheirProposal[]): void =>
      session.change(
        `Use ${proposals.length} of the team’s own components`,
        all(
          proposals.map(({ component, theirs }) =>
            putComponent(component, { ...app.components[component], theirs }),
          ),
        ),
      ),
    forget: (id: string, library: Library): void => {
      const users = Object.entries(app.components).filter(([, { theirs }]) => theirs?.library === id);
      session.change(
        `Forget ${library.name}`,
        all([
          ...users.map(([key, component]) => putComponent(key, asDrawn(component))),
          putLibrary(id, null),
        ]),
      );
    },
  };
}
