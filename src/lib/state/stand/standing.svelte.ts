/** Whether the stand has the whole page: while it has, nothing else of the page is seen or reached. */
class Standing {
  isUp = $state(false);
}

export const standing = new Standing();
