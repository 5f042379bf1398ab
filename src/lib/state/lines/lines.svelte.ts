/** The lines of a chart: the one that is shown, how it is found and judged, and those that are kept. */
import type { Workspace } from '../chart/workspace.svelte';
import { CurrentLine } from './current.svelte';
import { flushDraft } from './draft';
import { Finding } from './finding.svelte';
import { JudgedLine } from './judged.svelte';
import { LineShelf } from './shelf.svelte';

export class Lines {
  readonly workspace: Workspace;
  readonly current: CurrentLine;
  readonly shelf: LineShelf;
  readonly finding: Finding;
  readonly judged: JudgedLine;

  constructor(workspace: Workspace) {
    this.workspace = workspace;
    this.current = new CurrentLine(workspace, () => this.shelf.isKept);
    this.shelf = new LineShelf(workspace, this.current);
    this.finding = new Finding(workspace, this.current);
    this.judged = new JudgedLine(workspace, this.current);
  }

  /** What was shown last, or the first kept line; a chart without any gets one found. */
  async load(): Promise<void> {
    if (!(await this.shelf.load())) await this.finding.find({});
  }

  close(): void {
    flushDraft();
    this.finding.close();
  }
}
