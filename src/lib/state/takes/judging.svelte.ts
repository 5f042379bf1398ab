/** The opened take, read against the chart and the choices of the day it was played: what it met, how it stood to its calls, what is said of it. */
import type { TakeData } from '$lib/api/take';
import { nth } from '$lib/core/base/list';
import { noteOf } from '$lib/core/line/model';
import type { Arrangement } from '$lib/core/plan/arrange';
import type { Plan } from '$lib/core/plan/model';
import { meantTargets } from '$lib/core/plan/pin-times';
import { arrangeVersion, carriedOver, haveSameChoices, type ChartVersion } from '$lib/core/plan/version';
import { chartSwing } from '$lib/core/practice/chart-swing';
import { inBeats } from '$lib/core/takes/align';
import { judgeTake, type Judgement, type JudgingGround } from '$lib/core/takes/judge/judge';
import { habitsOf, remarksOn, type TakeHabit, type TakeRemark } from '$lib/core/takes/judge/remarks';
import { exchangesOf, turnsIn, type Exchange } from '$lib/core/takes/trade';
import type { Workspace } from '../chart/workspace.svelte';
import type { TakeShelf } from './shelf.svelte';

export class Judging {
  readonly #workspace: Workspace;
  readonly #shelf: TakeShelf;

  constructor(workspace: Workspace, shelf: TakeShelf) {
    this.#workspace = workspace;
    this.#shelf = shelf;
  }

  /** What is decided today, carried over to the text of the take that is open. */
  readonly #todayOver: Plan | null = $derived.by(() => {
    const { document, plan } = this.#workspace;
    const data = this.#shelf.opened?.data;
    return data ? carriedOver({ source: document.source, plan }, data.source).plan : null;
  });
  /** Whether the take that is open is judged by other decisions than today's. */
  readonly isOtherwise: boolean = $derived.by(() => {
    const plan = this.#shelf.opened?.data?.plan;
    return plan !== undefined && this.#todayOver !== null && !haveSameChoices(plan, this.#todayOver);
  });
  /** Whether it was played to another text of the chart, or to other decisions. */
  readonly isOfThen: boolean = $derived.by(() => {
    const data = this.#shelf.opened?.data;
    return !!data && (data.source !== this.#workspace.document.source || this.isOtherwise);
  });

  /** The chart of the opened take, as it was then. */
  readonly arranged: Arrangement | null = $derived.by(() =>
    this.#shelf.opened?.data ? this.#arrangementOf(this.#shelf.opened.data) : null
  );
  readonly #ground = $derived(this.arranged && groundOf(this.arranged));
  readonly judgement: Judgement | null = $derived.by(() =>
    this.#shelf.opened?.data && this.arranged && this.#ground
      ? judged(this.#shelf.opened.data, this.arranged, this.#ground)
      : null
  );
  /** The take that is read beside it, and its chart. */
  readonly beside = $derived.by(() => {
    const data = this.#shelf.beside?.data;
    const arranged = data && this.#arrangementOf(data);
    const ground = arranged && groundOf(arranged);
    return ground ? { arranged, judgement: judged(data, arranged, ground) } : null;
  });
  /** Where bars were traded: how each answer stands to its call. */
  readonly exchanges: readonly Exchange[] = $derived.by(() => {
    const data = this.#shelf.opened?.data;
    const { judgement } = this;
    const form = this.arranged?.sheet.form;
    if (!data?.trade || !judgement || !form) return [];
    return exchangesOf(
      turnsIn(form, data.trade.bars, judgement.figures.rounds),
      inBeats(data.notes, data),
      data.trade.call.map(({ start, length, midi }) => noteOf(start, length, midi)),
      judgement.changes.map(({ change, round, verdict }) => ({
        start: nth(form.changes, change).start + round * form.beats,
        verdict
      }))
    );
  });
  /** Ways of playing that hold for the whole take. */
  readonly habits: readonly TakeHabit[] = $derived.by(() =>
    this.judgement && this.#ground && this.judgement.figures.fits
      ? habitsOf(this.judgement, this.#ground)
      : []
  );
  readonly remarks: readonly TakeRemark[] = $derived.by(() =>
    this.judgement && this.#ground ? remarksOn(this.judgement, this.#ground) : []
  );
  /** Where the band has the second half of a beat. */
  readonly bandSwing: number = $derived.by(() => {
    const data = this.#shelf.opened?.data;
    return this.arranged && data ? chartSwing(this.arranged.sheet, data.tempo) : 0.5;
  });

  /** Reads the opened take by what is decided today; gives what reads it as before, null where that failed. */
  async byToday(): Promise<(() => Promise<void>) | null> {
    const before = this.#shelf.opened?.data;
    const plan = this.#todayOver;
    if (!before || !plan) return null;
    await this.#shelf.edit((data) => ({ ...data, plan, today: true }));
    if (this.#shelf.opened?.data?.today !== true) return null;
    const { plan: then, today } = before;
    return () => this.#shelf.edit((data) => ({ ...data, plan: then, today }));
  }

  #arrangementOf(data: TakeData): Arrangement {
    const { arrangement, plan, neck, system, document } = this.#workspace;
    const today: ChartVersion = { source: document.source, plan };
    // A take of before plans were kept with takes is read with today's, each decision on its change.
    const version: ChartVersion = data.plan
      ? { source: data.source, plan: data.plan }
      : carriedOver(today, data.source);
    const isToday = version.source === today.source && haveSameChoices(version.plan, plan);
    return isToday ? arrangement : arrangeVersion(version, neck, system);
  }
}

/** What takes of a chart are judged against; null where it has no chords. */
function groundOf({ sheet, analysis, chosen, neck }: Arrangement): JudgingGround | null {
  if (analysis.changes.length === 0) return null;
  return { form: sheet.form, analysis, chosen, meter: sheet.head.meter, neck };
}

/** A take against what was meant when it was played: targets that the plan pins early or late are wanted then. */
function judged(
  { notes, tempo, start, targets, trade }: TakeData,
  { plan, sheet }: Arrangement,
  ground: JudgingGround
): Judgement {
  const meant = meantTargets(targets, plan, ground.form);
  return judgeTake(
    { notes, clock: { tempo, start }, targets: meant, trade: trade?.bars, swing: chartSwing(sheet, tempo) },
    ground
  );
}
