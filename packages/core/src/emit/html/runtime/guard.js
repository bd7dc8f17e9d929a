import { now } from './state.js';

/** Leads somewhere else before the screen is shown, where its condition does not hold. */
const { guard, guardIs, otherwise } = document.documentElement.dataset;
if (guard && otherwise && now()[/** @type {'condition'} */ (guard)] !== (guardIs !== 'false'))
  location.replace(otherwise + location.search);
