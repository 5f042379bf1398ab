/** Something that the player should know while the stand is used: no sound, a loop that cannot be; empty where all is well. */
export class Notice {
  problem = $state('');
}
