/** A name as a part of a JSON Pointer (RFC 6901). */
export const escaped = (part: string): string => part.replaceAll('~', '~0').replaceAll('/', '~1');

/** A part of a reference; what is no escape in it stays as it is. */
export function unescaped(part: string): string {
  const plain = part.replace(/(%[0-9a-f]{2})+/gi, (bytes) => {
    try {
      return decodeURIComponent(bytes);
    } catch {
      return bytes;
    }
  });
  return plain.replaceAll('~1', '/').replaceAll('~0', '~');
}
