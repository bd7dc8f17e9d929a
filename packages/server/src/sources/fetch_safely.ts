import dns from 'node:dns';
import http from 'node:http';
import https from 'node:https';
import type { LookupFunction } from 'node:net';
import ipaddr from 'ipaddr.js';

/** Bounds on what is fetched from an address that somebody typed. */
export const fetchLimits = { bytes: 60 * 2 ** 20, redirects: 5, milliseconds: 20_000 } as const;

export interface Fetched {
  readonly status: number;
  /** Where the redirects led. */
  readonly address: string;
  readonly type: string;
  readonly etag: string | null;
  readonly modified: string | null;
  readonly bytes: Uint8Array;
}

export class FetchError extends Error {}

export interface FetchOptions {
  /** Hosts with their port that may be private, as `127.0.0.1:4312`. */
  readonly allowed: readonly string[];
  readonly etag?: string | null;
  readonly modified?: string | null;
}

/**
 * Fetches an address. Names that lead to private, local or reserved networks are refused, also when a redirect leads
 * there, and also when the name changes its mind: the check is made on the very address that is connected to.
 * @throws FetchError that says why, in words.
 */
export async function fetchSafely(address: string, options: FetchOptions): Promise<Fetched> {
  let at = address;
  const deadline = Date.now() + fetchLimits.milliseconds;
  for (let hop = 0; hop <= fetchLimits.redirects; hop++) {
    const url = urlOf(at);
    const answer = await ask(url, options, deadline);
    const { location } = answer.headers;
    if (answer.status < 300 || answer.status === 304 || answer.status >= 400 || !location) {
      if (answer.status >= 400)
        throw new FetchError(
          `${url.host} answered ${answer.status}. Is the address right, and may it be read without signing in?`,
        );
      return {
        status: answer.status,
        address: url.href,
        type: String(answer.headers['content-type'] ?? '')
          .split(';')[0]
          .trim()
          .toLowerCase(),
        etag: header(answer.headers.etag, 300),
        modified: header(answer.headers['last-modified'], 100),
        bytes: answer.bytes,
      };
    }
    at = new URL(location, url).href;
  }
  throw new FetchError(`${address} leads on more than ${fetchLimits.redirects} times.`);
}

const header = (value: string | undefined, longest: number): string | null =>
  value && value.length <= longest ? value : null;

function urlOf(address: string): URL {
  let url: URL;
  try {
    url = new URL(address);
  } catch {
    throw new FetchError(`“${address.slice(0, 100)}” is not an address.`);
  }
  if (url.protocol !== 'http:' && url.protocol !== 'https:')
    throw new FetchError(`Only http: and https: addresses are fetched, not ${url.protocol}`);
  if (url.username || url.password)
    throw new FetchError('An address with a name and password in it is not fetched.');
  return url;
}

/** Whether an IP address belongs to the public internet. */
export function isPublicAddress(ip: string): boolean {
  if (!ipaddr.isValid(ip)) return false;
  // Also when it is an older address in a newer form, of which there are two.
  const address = ipaddr.process(ip);
  if (address instanceof ipaddr.IPv6 && address.parts.slice(0, 6).every((part) => part === 0)) return false;
  return address.range() === 'unicast';
}

const refusal = (host: string): FetchError =>
  new FetchError(
    `${host} is on a private or local network, which is not fetched from. TOVEL_ALLOW_HOSTS names hosts that may be.`,
  );

interface Answer {
  readonly status: number;
  readonly headers: http.IncomingHttpHeaders;
  readonly bytes: Uint8Array;
}

function ask(url: URL, options: FetchOptions, deadline: number): Promise<Answer> {
  const port = url.port || (url.protocol === 'https:' ? '443' : '80');
  const name = url.hostname.replace(/^\[|\]$/g, '');
  const isAllowed = options.allowed.includes(`${name}:${port}`);
  if (!isAllowed && ipaddr.isValid(name) && !isPublicAddress(name)) return Promise.reject(refusal(url.host));
  const lookup: LookupFunction = (host, how, done) => {
    dns.lookup(host, { ...how, all: true }, (error, addresses) => {
      if (error) return done(error, '', 4);
      if (!isAllowed && !addresses.every(({ address }) => isPublicAddress(address)))
        return done(refusal(url.host), '', 4);
      if (how.all) return (done as unknown as (e: null, a: dns.LookupAddress[]) => void)(null, addresses);
      return done(null, addresses[0].address, addresses[0].family);
    });
  };
  return new Promise((resolve, reject) => {
    const fail = (message: string): void => {
      request.destroy();
      reject(new FetchError(message));
    };
    const request = (url.protocol === 'https:' ? https : http).request(
      url,
      {
        lookup,
        headers: {
          'user-agent': 'Tovel',
          accept: 'text/html, image/svg+xml, application/zip, */*;q=0.5',
          ...(options.etag ? { 'if-none-match': options.etag } : {}),
          ...(options.modified && !options.etag ? { 'if-modified-since': options.modified } : {}),
        },
      },
      (response) => {
        const parts: Buffer[] = [];
        let size = 0;
        response.on('data', (part: Buffer) => {
          size += part.length;
          if (size > fetchLimits.bytes)
            fail(`${url.host} sends more than ${fetchLimits.bytes / 2 ** 20} MB.`);
          else parts.push(part);
        });
        response.on('end', () =>
          resolve({
            status: response.statusCode ?? 0,
            headers: response.headers,
            bytes: new Uint8Array(Buffer.concat(parts)),
          }),
        );
        response.on('error', () => fail(`${url.host} stopped in the middle of its answer.`));
      },
    );
    const timer = setTimeout(
      () => fail(`${url.host} did not answer within ${fetchLimits.milliseconds / 1000} seconds.`),
      Math.max(deadline - Date.now(), 1),
    );
    request.on('close', () => clearTimeout(timer));
    request.on('error', (error: NodeJS.ErrnoException) =>
      reject(
        error instanceof FetchError
          ? error
          : new FetchError(`${url.host} cannot be reached (${error.code ?? error.message}).`),
      ),
    );
    request.end();
  });
}
