/** What is asked about the bars that are selected. */
export type Question = 'section' | 'note' | 'replace' | 'meter';

export const QUESTIONS: Readonly<Record<Question, string>> = {
  section: 'Name of the section that begins here',
  note: 'Note to this bar, shown on the stand and in print',
  replace: 'Replace this chord in the selection by',
  meter: 'Meter of these bars'
};
