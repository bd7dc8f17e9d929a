/** Saves a file under a name. */
export function saveFile(href: string, name: string): void {
  const link = document.createElement('a');
  link.href = href;
  link.download = name;
  link.click();
}
