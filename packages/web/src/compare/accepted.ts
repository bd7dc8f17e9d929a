/** Under which a difference is kept that somebody accepted; another difference of the same element has another one. */
export const acceptedKey = (screen: string, cause: string): string => `looks-otherwise ${screen} ${cause}`;
