import { createHmac, randomBytes, scrypt, timingSafeEqual } from 'node:crypto';
import { promisify } from 'node:util';

const derive = promisify<string, Buffer, number, Buffer>(scrypt);
const KEY_BYTES = 32;

/** What is kept of a pass phrase: enough to know it again, not enough to say it. */
export async function keptPass(phrase: string): Promise<string> {
  const salt = randomBytes(16);
  return `${salt.toString('hex')}:${(await derive(phrase, salt, KEY_BYTES)).toString('hex')}`;
}

export async function isPass(phrase: string, kept: string): Promise<boolean> {
  const [salt, key] = kept.split(':').map((hex) => Buffer.from(hex, 'hex'));
  return isSame(await derive(phrase, salt, KEY_BYTES), key);
}

/** What a browser keeps once the phrase was right; another phrase makes it worthless. */
export const ticketFor = (kept: string): string => createHmac('sha256', kept).update('entered').digest('hex');

export const isTicket = (ticket: string | undefined, kept: string): boolean =>
  ticket !== undefined && isSame(Buffer.from(ticket), Buffer.from(ticketFor(kept)));

const isSame = (a: Buffer, b: Buffer): boolean => a.length === b.length && timingSafeEqual(a, b);
