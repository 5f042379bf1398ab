/** What is open above any page: the finder, the help. */

export type ShellDialog = 'find' | 'help';

class ShellState {
  /** One at a time. */
  open: ShellDialog | null = $state(null);
}

export const shell = new ShellState();
