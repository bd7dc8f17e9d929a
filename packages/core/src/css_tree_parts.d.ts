/** The parts of css-tree that are taken one by one; its published types know only the whole. */
declare module 'css-tree/dist/data' {
  const definitions: {
    readonly properties: Readonly<Record<string, string>>;
    readonly types: Readonly<Record<string, string>>;
    readonly atrules: Readonly<Record<string, unknown>>;
  };
  export default definitions;
}

declare module 'css-tree/lexer' {
  export class Lexer {
    constructor(config: { generic: boolean; properties: object; types: object; atrules: object });
    readonly properties: Readonly<Record<string, unknown>>;
    matchProperty(property: string, value: string): { readonly error: Error | null };
  }
}

declare module 'css-tree/tokenizer' {
  export { tokenize, tokenTypes } from 'css-tree';
}

declare module 'css-tree/utils' {
  export { string, url } from 'css-tree';
}
