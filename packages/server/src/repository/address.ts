import { HttpError } from '../http/errors.ts';

/**
 * An address that may be pushed to: https, a file, or http on this machine. What is in it is said to git as one word and shows
 * up in logs, so that it must hold no password.
 * @throws HttpError that says what is wrong
 */
export function checkedAddress(said: string): string {
  const wrong = (message: string): HttpError => new HttpError('invalid', message);
  const text = said.trim();
  let url: URL;
  try {
    url = new URL(text.startsWith('/') ? `file://${text}` : text);
  } catch {
    throw wrong(`“${text.slice(0, 100)}” is no address. Give one that begins with https:// or file://.`);
  }
  if (url.username || url.password)
    throw wrong('Leave name and password out of the address; the token has a field of its own.');
  const isHere = /^(127\.0\.0\.1|localhost|\[::1\])$/.test(url.hostname);
  if (url.protocol !== 'https:' && url.protocol !== 'file:' && !(url.protocol === 'http:' && isHere))
    throw wrong('Repositories are reached by https:// or file://; by http:// only on this machine.');
  if (url.search || url.hash) throw wrong('An address of a repository has no ? and no #.');
  return url.href;
}

/** A branch's name as git takes it. @throws HttpError */
export function checkedBranch(said: string): string {
  const name = said.trim();
  const isRight = /^[\w][\w./-]{0,150}$/.test(name) && !/\.\.|\/\/|\.lock(\/|$)|\/\.|[./]$|^HEAD$/.test(name);
  if (!isRight)
    throw new HttpError(
      'invalid',
      `“${name.slice(0, 60)}” is no name of a branch: letters, digits, -, _, . and / between them.`,
    );
  return name;
}
