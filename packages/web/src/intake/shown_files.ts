/** An origin that no host has: what comes along is known to the pages that are read by an address of it. */
export const FILES = 'https://files.invalid';

/** The address that a page has for a file that came along. */
export const addressOfFile = (hash: string): string => `${FILES}/${hash}`;

const ADDRESS = new RegExp(`${FILES}/([0-9a-f]{64})`, 'g');

/** The hashes of the files that a page asks for, each once. */
export const filesIn = (html: string): readonly string[] => [
  ...new Set([...html.matchAll(ADDRESS)].map(([, hash]) => hash)),
];

/** Files under addresses of this document, for as long as a page with them is read. */
export class ShownFiles {
  readonly #addresses = new Map<string, string>();
  readonly #hashes = new Map<string, string>();

  add(hash: string, file: Blob): void {
    if (this.#addresses.has(hash)) return;
    const address = URL.createObjectURL(file);
    this.#addresses.set(hash, address);
    this.#hashes.set(address, hash);
  }

  /** A page with addresses at which its files are found here. */
  shownIn(html: string): string {
    return html.replace(ADDRESS, (address, hash: string) => this.#addresses.get(hash) ?? address);
  }

  /** What was read of a page, as JSON, with the addresses that it came with. */
  asCame(json: string): string {
    return json.replace(/blob:[^"'()\s\\]+/g, (address) => {
      const hash = this.#hashes.get(address);
      return hash === undefined ? address : addressOfFile(hash);
    });
  }

  dispose(): void {
    for (const address of this.#hashes.keys()) URL.revokeObjectURL(address);
  }
}
