/** What lies in the bass of each inversion. */
export const INVERSIONS = [
  'root in the bass',
  '3rd in the bass',
  '5th in the bass',
  '7th in the bass'
] as const;
