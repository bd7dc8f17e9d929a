import type { ScreenStanding } from '@tovel/core';

/** What became of a screen, in words. */
export const STANDINGS: Readonly<Record<ScreenStanding, string>> = {
  changed: 'changed',
  renamed: 'renamed',
  overlay: 'an overlay now',
  part: 'parted off',
  joined: 'joined',
  width: 'another width',
  new: 'new',
  gone: 'gone',
  same: 'the same',
};

/** `14 screens: 9 the same, 3 changed, 1 new`. */
export function screensInWords(screens: readonly { readonly standing: ScreenStanding }[]): string {
  const counts = (Object.keys(STANDINGS) as ScreenStanding[]).flatMap((standing) => {
    const count = screens.filter((one) => one.standing === standing).length;
    return count ? [`${count} ${STANDINGS[standing]}`] : [];
  });
  return `${screens.length} ${screens.length === 1 ? 'screen' : 'screens'}: ${counts.join(', ')}`;
}

/** `53 kept, 1 to decide, 1 let go`. */
export const tallyInWords = ({
  kept,
  byHand = 0,
  back = 0,
  asked,
  letGo,
}: {
  readonly kept: number;
  readonly byHand?: number;
  readonly back?: number;
  readonly asked: number;
  readonly letGo: number;
}): string =>
  `${kept} kept${byHand ? ` (${byHand} by hand)` : ''}${back ? `, ${back} back again` : ''}, ${asked} to decide, ${letGo} let go`;
