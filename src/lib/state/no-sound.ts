/** Said where the browser refuses to make any sound. */
export const NO_SOUND = 'The browser plays no sound. Check whether this page is muted, then try again.';
/** Said where what plays has not arrived yet. */
export const NO_PLAYER =
  'The band could not be loaded because Corvel’s server is not running. Try again when it is.';
