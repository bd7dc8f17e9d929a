/** What the operating system refuses, by its code: what it is about and what to do. */
const WORDS: Readonly<Record<string, (file: string) => string>> = {
  ENOSPC: () => 'The disk is full. Make room, or name a folder on another one.',
  EDQUOT: () => 'No more may be written to this disk. Make room, or name a folder on another one.',
  EACCES: (file) => `${file} is not yours to open or to write. Get the right to, or name another one.`,
  EPERM: (file) => `${file} is not yours to change. Get the right to, or name another one.`,
  EROFS: (file) => `${file} is on a disk that can only be read. Name another one.`,
  ENOENT: (file) => `There is no ${file}.`,
  ENOTDIR: (file) => `Something in ${file} is a file where a folder should be.`,
  EISDIR: (file) => `${file} is a folder where a file should be.`,
  EEXIST: (file) => `${file} is there already, as something else.`,
  ENAMETOOLONG: (file) => `${file} is too long a name for this disk. Name a shorter one.`,
  EMFILE: () => 'Too many files are open. Close some programs, then run it again.',
  ENFILE: () => 'Too many files are open. Close some programs, then run it again.',
  EIO: (file) => `The disk does not answer for ${file}. It may be broken or unplugged.`,
};

/** What an error of the file system says to people; null for any other error. */
export function systemErrorInWords(error: unknown): string | null {
  if (typeof error !== 'object' || error === null || !('code' in error && 'syscall' in error)) return null;
  const file = 'path' in error && typeof error.path === 'string' ? error.path : 'A file';
  const code = String(error.code);
  return Object.hasOwn(WORDS, code) ? WORDS[code](file) : null;
}
