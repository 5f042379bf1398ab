/** Where the application's songbook lies: CORVEL_DB or data/corvel.db. */
export const songbookPath = (): string => process.env.CORVEL_DB || 'data/corvel.db';
