import { emptyDesign, type LinkProposal, proposeLinks, type Screen } from '@tovel/core';
import { expose } from 'comlink';

/** Looks where elements may lead, away from the interface. */
const links = {
  find(screens: readonly Screen[], synonyms: Readonly<Record<string, string>>): LinkProposal[] {
    return proposeLinks({ ...emptyDesign, screens }, screens, synonyms);
  },
};

export type LinksWorker = typeof links;

expose(links);
