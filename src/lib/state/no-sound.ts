/** Said where the browser refuses to make any sound. */
export const NO_SOUND = 'The browser gives no sound. Look whether it is muted for this page, then try again.';
/** Said where what plays has not arrived yet. */
export const NO_PLAYER = 'The band has not arrived: Corvel’s server is away. Try again when it is back.';
