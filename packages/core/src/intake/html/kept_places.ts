/** What shows something of elsewhere leaves a place of its own size, under a tag that shows nothing. */

const SHOWN = ['iframe', 'object', 'embed', 'video'];
/** What shows something of elsewhere. */
export const HOLDING_PLACE: ReadonlySet<string> = new Set(SHOWN);

const PREFIX = 'tovel-';

/** The tag of the place that is kept for an element: rules for its own are rules for that. */
export const placeTag = (tag: string): string => PREFIX + tag;

/** Tags of places that are kept. */
export const PLACE_TAGS: readonly string[] = SHOWN.map(placeTag);
