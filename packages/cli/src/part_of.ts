import { type EmittedFile, type EmittedProject, type Project, withWhatItNeeds } from '@tovel/core';
import { Misuse } from './command.ts';

/**
 * The file of a screen or component, by its name or path, with what it takes from others.
 * @throws Misuse where there is no such part
 */
export function partOf(project: Project, emitted: EmittedProject, wanted: string): readonly EmittedFile[] {
  const plain = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '');
  const screen = Object.entries(project.app.screens).find(([, { name }]) => plain(name) === plain(wanted));
  const path =
    (screen && emitted.fileOfScreen.get(screen[0])) ??
    emitted.files.find((file) => file.path === wanted)?.path ??
    emitted.files.find((file) => plain(file.path.replace(/^.*\/|\.tsx$/g, '')) === plain(wanted))?.path;
  if (path === undefined) throw new Misuse(`There is no screen, component or file “${wanted}” in the code.`);
  return withWhatItNeeds(emitted, path);
}
