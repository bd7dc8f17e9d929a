/** A random run of letters and digits has at least so many bits a character (Shannon 1948), words and numbers have fewer. */
const LEAST_BITS = 3.2;

/** What says by itself that it is a key, and what is one where it is random enough. */
const SURE: readonly RegExp[] = [
  /-----BEGIN [A-Z ]*PRIVATE KEY-----/,
  // A JSON Web Token (RFC 7519).
  /\beyJ[\w-]{8,}\.eyJ[\w-]{8,}\.[\w-]{8,}/,
];
const NAMED: readonly RegExp[] = [
  /\b(?:api[-_ ]?key|access[-_ ]?(?:key|token)|auth[-_ ]?token|client[-_ ]?secret|secret[-_ ]?key|token|secret|bearer)\b["']?\s*[=: ]\s*["']?(?<key>[\w./+-]{16,})/gi,
  /\b(?<key>[a-z]{2,6}_(?:live|test|prod)_[A-Za-z0-9]{12,})\b/g,
  /\b(?<key>(?=[A-Z0-9]*\d)(?=\d*[A-Z])[A-Z0-9]{20})\b/g,
];

/** Bits a character that a text holds at least, by how often each of its characters stands in it. */
function bitsOf(text: string): number {
  const counts = new Map<string, number>();
  for (const one of text) counts.set(one, (counts.get(one) ?? 0) + 1);
  return [...counts.values()].reduce((sum, n) => sum - (n / text.length) * Math.log2(n / text.length), 0);
}

/** The part of a text that looks like a key or a token; null where nothing does. */
export function keyIn(text: string): string | null {
  if (text.length < 16) return null;
  for (const pattern of SURE) {
    const [found] = pattern.exec(text) ?? [];
    if (found) return found;
  }
  for (const pattern of NAMED)
    for (const { groups } of text.matchAll(pattern)) {
      const key = groups!.key;
      if (/\d/.test(key) && /[a-z]/i.test(key) && bitsOf(key) >= LEAST_BITS) return key;
    }
  return null;
}
