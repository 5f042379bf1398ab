/** What is kept on the server and may fail there: what went wrong is said, and shown by whoever shows the rest. */
export class Attempts {
  /** What the player should know; empty where all went well. */
  problem = $state('');
  isBusy = $state(false);

  /** Runs something that may fail; tells whether it went well. */
  protected async attempt(work: () => Promise<unknown>): Promise<boolean> {
    this.problem = '';
    this.isBusy = true;
    try {
      await work();
      return true;
    } catch (error) {
      this.problem = error instanceof Error ? error.message : 'That did not work.';
      return false;
    } finally {
      this.isBusy = false;
    }
  }
}
