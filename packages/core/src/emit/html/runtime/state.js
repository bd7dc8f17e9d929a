import { initial } from './conditions.js';

/** What is true or not while the app runs. Kept for as long as the tab is open. */
const KEY = 'conditions';

/** @returns {typeof initial} */
const now = () => ({ ...initial, ...JSON.parse(sessionStorage.getItem(KEY) ?? '{}') });

/** @param {keyof typeof initial} name */
export const holds = (name) => now()[name];

/**
 * @param {keyof typeof initial} name
 * @param {boolean} value
 */
export const set = (name, value) => sessionStorage.setItem(KEY, JSON.stringify({ ...now(), [name]: value }));
