/** Hands a text to the browser as a file to keep; the name is made from a title. */
export const saveFile = (title: string, extension: string, type: string, text: string): void =>
  saveBlob(`${title.toLowerCase().replace(/\W+/g, '-')}${extension}`, new Blob([text], { type }));

/** Hands bytes to the browser as a file to keep. */
export function saveBlob(name: string, bytes: Blob): void {
  const url = URL.createObjectURL(bytes);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 1000);
}
