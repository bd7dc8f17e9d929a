/** Hands a text to the browser as a file to keep; the name is made from a title. */
export function saveFile(title: string, extension: string, type: string, text: string): void {
  const url = URL.createObjectURL(new Blob([text], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = `${title.toLowerCase().replace(/\W+/g, '-')}${extension}`;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 1000);
}
