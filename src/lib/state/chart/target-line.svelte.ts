/** The target line as the player bends it: its rules, what is pinned, which other line is taken. */
import { firstOf, nth, sure } from '$lib/core/base/list';
import type { AnalysedChange } from '$lib/core/harmony/analysis';
import type { Sheet } from '$lib/core/harmony/sheet';
import { landingOf, type Melody } from '$lib/core/line/melody';
import type { NamedCell } from '$lib/core/neck/shape';
import type { NeckSystem } from '$lib/core/neck/systems/system';
import type { Instrument } from '$lib/core/neck/tuning';
import { arrange, type Arrangement } from '$lib/core/plan/arrange';
import { approachWith, isPinned, pin, resetRules, takePath, unpin, unpinAll } from '$lib/core/plan/edits';
import type { ApproachNoteWish, ChordSlot, PathRules, Pin, Plan, ThreadRule } from '$lib/core/plan/model';
import { findTargets, type TargetPath } from '$lib/core/targets/path';
import { STYLES, styleOf } from '$lib/core/targets/styles';
import { DEGREES } from '$lib/core/theory/degree';
import { pitchClass } from '$lib/core/theory/note';
import { counted } from '$lib/core/theory/words';
import type { ChartDocument } from './document.svelte';
import { SOLVED_AT_ONCE, type Paths } from './paths.svelte';

/** The chart whose line it is, and the change that is selected. */
interface Place {
  readonly document: ChartDocument;
  readonly plan: Plan;
  readonly sheet: Sheet;
  readonly arrangement: Arrangement;
  readonly neck: Instrument;
  readonly system: NeckSystem;
  readonly paths: Paths;
  readonly changes: readonly AnalysedChange[];
  readonly change: AnalysedChange | undefined;
  readonly selected: number;
  /** The chord tones under the hand at each change. */
  readonly tones: readonly (readonly NamedCell[])[];
  readonly melody: Melody | null;
  say(words: string): void;
}

export class TargetLine {
  readonly #place: Place;

  constructor(place: Place) {
    this.#place = place;
  }

  /** The style in force; null for weights of the player's own. */
  readonly style = $derived.by(() => styleOf(this.#place.plan.weights, this.#place.plan.direction));

  pickThread(thread: ThreadRule): void {
    if (thread !== this.#place.plan.thread)
      this.#place.document.decide((plan) => ({ ...plan, thread }), 'thread');
  }

  toggleDegree(degree: ChordSlot): void {
    const { degrees } = this.#place.plan;
    const next = degrees.includes(degree) ? degrees.filter((one) => one !== degree) : [...degrees, degree];
    if (next.length > 0) this.#place.document.decide((plan) => ({ ...plan, degrees: next }), 'degrees');
  }

  pickStyle(id: string): void {
    const style = STYLES.find((one) => one.id === id);
    if (!style) return;
    const { weights, direction } = style;
    this.#place.document.decide((plan) => ({ ...plan, weights, direction }), 'style');
  }

  /** Changes rules of the target line: limits, weights, which changes, how they are led into. */
  rule(part: Partial<PathRules>, mergeable = false): void {
    this.#place.document.decide(
      (plan) => ({ ...plan, ...part }),
      `rule ${Object.keys(part).join()}`,
      mergeable
    );
  }

  resetRules(): void {
    this.#place.document.decide(resetRules, 'rules');
    this.#place.say('All rules of the target line are reset');
  }

  toggleLoop(): void {
    this.#place.document.decide((plan) => ({ ...plan, loop: !plan.loop }), 'loop');
  }

  /** How the target of one change is led into; undefined as for all. */
  approachWith(change: number, wish: ApproachNoteWish | undefined): void {
    this.#place.document.decide((plan) => approachWith(plan, change, wish), 'approach note');
  }

  /** Takes another path: what differs from the best one is pinned. */
  takePath(path: TargetPath): void {
    const { sheet, neck, system } = this.#place;
    const solve = (plan: Plan) => {
      // A long chart is not solved again and again on the page: all its targets are pinned.
      if (this.#place.changes.length > SOLVED_AT_ONCE) return null;
      const { analysis, targetOptions } = arrange({ sheet, plan }, neck, system, this.#place.arrangement);
      return findTargets(analysis, targetOptions(plan.thread)).paths[0] ?? null;
    };
    this.#place.document.decide((plan) => takePath(plan, this.#place.paths.path, path, solve), 'path');
    this.#place.say('Another line taken; the targets that differ are pinned');
  }

  /** Sends a guide-tone line to Threads: its notes become the targets, each in the octave nearest the one before. */
  followLine(notes: readonly (string | null)[]): void {
    let last = this.#place.paths.targets.get(0)?.cell.midi;
    const pinned = notes.flatMap((note, change): [number, Pin][] => {
      const options = (this.#place.tones[change] ?? []).filter(
        (cell) => note && cell.midi % 12 === pitchClass(note)
      );
      const reference = last ?? options[Math.floor(options.length / 2)]?.midi ?? 0;
      const nearest = nearestTo(options, reference);
      if (!nearest) return [];
      last = nearest.midi;
      return [[change, { string: nearest.string, fret: nearest.fret }]];
    });
    this.#place.document.decide(
      (plan) => ({
        ...pinned.reduce((sum, [change, at]) => pin(sum, change, at), unpinAll(plan)),
        thread: 'free'
      }),
      'thread'
    );
  }

  /** Pins a cell as the target of a change; the path is solved again around it. */
  pin(change: number, { string, fret }: Pin): void {
    this.#place.document.decide((plan) => pin(plan, change, { string, fret }), 'pin');
  }

  unpin(change: number): void {
    if (!this.isPinned(change)) return;
    this.#place.document.decide((plan) => unpin(plan, change), 'unpin');
    this.#place.say('Target unpinned');
  }

  unpinAll(): void {
    this.#place.document.decide(unpinAll, 'unpin');
    this.#place.say('All targets unpinned');
  }

  isPinned(change: number): boolean {
    return isPinned(this.#place.plan, change);
  }

  /**
   * Aims the selected change at a chord degree (1, 3, 5 or 7; 6 where the chord has one; 2, 4 for its 9 and 11): the
   * nearest such tone to the present target, or the next octave when it is on that degree already.
   */
  aim(degree: string): void {
    const options = this.#tonesOn(degree);
    if (options.length === 0) {
      this.#place.say(`${this.#place.change?.symbol ?? ''} has no ${degree} in this position`);
      return;
    }
    const current = this.#place.paths.targets.get(this.#place.selected)?.cell;
    const index = options.findIndex((cell) => cell.midi === current?.midi);
    // What is aimed at already is pinned where it lies; only then does it move on.
    const step = this.isPinned(this.#place.selected) ? 1 : 0;
    const next =
      index >= 0
        ? nth(options, (index + step) % options.length)
        : sure(nearestTo(options, current?.midi ?? firstOf(options).midi), 'nearestTo');
    this.pin(this.#place.selected, next);
    this.#place.say(`Target ${next.degree} ${next.note}, string ${next.string}, fret ${next.fret}`);
  }

  #tonesOn(degree: string): NamedCell[] {
    const named: Readonly<Record<string, string>> = { '2': '9', '4': '11', '6': '6', '9': '9' };
    return (this.#place.tones[this.#place.selected] ?? []).filter((cell) =>
      named[degree] ? cell.degree.endsWith(named[degree]) : DEGREES[cell.degree].slot === degree
    );
  }

  /** Pins every change to the melody's note there, where that is a tone of its chord under the hand. */
  landOnMelody(): void {
    const { melody } = this.#place;
    if (!melody) return;
    const landings = this.#place.changes.flatMap((change) => {
      const note = landingOf(melody.line, change);
      if (!note) return [];
      const near = (this.#place.tones[change.index] ?? [])
        .filter(({ midi }) => midi % 12 === note.midi % 12)
        .sort((a, b) => Math.abs(a.midi - note.midi) - Math.abs(b.midi - note.midi))[0];
      return near ? [{ change: change.index, cell: near }] : [];
    });
    this.#place.document.decide(
      (plan) => landings.reduce((sum, { change, cell }) => pin(sum, change, cell), plan),
      'melody'
    );
    this.#place.say(`Landing on the melody at ${counted(landings.length, 'change')}`);
  }
}

function nearestTo(cells: readonly NamedCell[], midi: number): NamedCell | undefined {
  return [...cells].sort((a, b) => Math.abs(a.midi - midi) - Math.abs(b.midi - midi))[0];
}
