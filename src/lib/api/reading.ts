/**
 * Counts how Corvel reads charts: raised where the keys it hears, what it puts first or where its lines land have changed, so that a player whose
 * songbook is older is told once.
 */
export const READING = 2;
