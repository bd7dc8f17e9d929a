// The published types leave out the tokenizer and the dictionary.
import 'css-tree';

declare module 'css-tree' {
  export function tokenize(text: string, onToken: (type: number, start: number, end: number) => void): void;
  export const tokenTypes: Readonly<Record<string, number>>;
  export const url: { decode(text: string): string };
  export const string: { decode(text: string): string };
}
