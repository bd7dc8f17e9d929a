/** Puts a text where the next paste takes it from. */
export const copyText = (text: string): void => void navigator.clipboard.writeText(text);
