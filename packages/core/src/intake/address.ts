/**
 * Whether following an address would run or hold something instead of leading somewhere. Control characters and
 * spaces before the colon hide a scheme from a plain comparison, but not from a browser.
 */
export function isUnsafeAddress(address: string): boolean {
  const bare = [...address]
    .filter((char) => char > ' ')
    .join('')
    .toLowerCase();
  return /^(javascript|data|vbscript|blob|file):/.test(bare);
}
