import type { App, TokenKind } from '../../model/app.ts';
import { tokenCss } from '../../tokens/values.ts';
import { writtenValue } from './written.ts';

/** A property that takes what a token of a kind holds. */
const WRITTEN_AS: Readonly<Record<TokenKind, string>> = {
  color: 'color',
  size: 'font-size',
  weight: 'font-weight',
  space: 'margin',
  radius: 'border-radius',
  shadow: 'box-shadow',
};

/** The custom properties of an app: its tokens, and the values that recur in its styles. */
export const tokensCss = (
  { tokens }: Pick<App, 'tokens'>,
  palette: { readonly values: readonly (readonly [name: string, value: string])[] },
): string =>
  tokenCss(
    Object.fromEntries(
      Object.entries(tokens).map(([key, token]) => [
        key,
        { ...token, value: writtenValue(WRITTEN_AS[token.kind], token.value) },
      ]),
    ),
    palette.values,
  );
