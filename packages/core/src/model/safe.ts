/** What may be written into an app that came from outside: no more than plain addresses and plain style values. */

/** Addresses that an element may lead to outside the app. */
export const isExternalAddress = (href: string): boolean =>
  /^(https?:\/\/[^\s/]|mailto:\S|tel:\S)/i.test(href);

/** A CSS value that stays within its declaration and fetches nothing. */
export const isSafeCssValue = (value: string): boolean =>
  value.length <= 2000 && !/[;{}<>\\@]|\/\*|url\s*\(|image-set|expression|javascript:/i.test(value);
