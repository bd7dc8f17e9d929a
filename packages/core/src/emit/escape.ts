/** Text as the content of an HTML or XML element. */
export const escapeText = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');

/** Text as the value of an attribute in double quotes. */
export const escapeValue = (text: string): string => escapeText(text).replace(/"/g, '&quot;');

/** Text as it can stand in a comment of TypeScript or CSS: on one line, and never its end. */
export const commentText = (text: string): string => text.replace(/\s+/g, ' ').replace(/\*(?=\/)/g, '* ');
