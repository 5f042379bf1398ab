/** A plan in which nothing is decided but the place of the hand, so that a job can count frets from it. */
export const AT_FIVE = { position: 5, thread: 'free', degrees: ['3', '7'], loop: true, decisions: [] };
