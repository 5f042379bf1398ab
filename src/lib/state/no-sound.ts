/** Said where the browser refuses to make any sound. */
export const NO_SOUND =
  'The browser gives no sound. Look whether it is muted for this page, then press play again.';
