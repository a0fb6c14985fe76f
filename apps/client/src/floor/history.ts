/** So many ended checks of a machine are shown on its page. */
export const HISTORY = 24;
