/** Text as the content of an HTML or XML element. */
export const escapeText = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');

/** Text as the value of an attribute in double quotes. */
export const escapeValue = (text: string): string => escapeText(text).replace(/"/g, '&quot;');
