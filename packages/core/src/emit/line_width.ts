/** Lines are at most this long, as in the settings of the formatter that are delivered. */
export const PRINT_WIDTH = 100;
