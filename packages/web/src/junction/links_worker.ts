import { emptyDesign, type LinkProposal, proposeLinks, type Screen } from '@tovel/core';
import { expose } from 'comlink';

/** Looks where elements may lead, away from the interface. */
const links = {
  find(screens: readonly Screen[]): LinkProposal[] {
    return proposeLinks({ ...emptyDesign, screens });
  },
};

export type LinksWorker = typeof links;

expose(links);
