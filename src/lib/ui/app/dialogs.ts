/** The dialogs of a chart. */
export type DialogName = 'versions' | 'table' | 'compare' | 'guitar' | 'tuner';
