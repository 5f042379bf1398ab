/** The simulated player: a line is performed, made into sound, and heard like any other. */
import { beatsOf, ticksOf, type LineNote } from '$lib/core/line/model';
import { linesOf } from '$lib/core/plan/lines';
import { meantBy } from '$lib/core/takes/meant';
import type { Effect } from '$lib/core/takes/player/effects';
import { perform } from '$lib/core/takes/player/perform';
import type { Tone } from '$lib/core/takes/player/string';
import { turnAt, turnsIn } from '$lib/core/takes/trade';
import type { Workspace } from '../../chart/workspace.svelte';
import { heardParts, swungBeats } from '../made-of';
import { RATE } from '../shelf.svelte';
import { frameIn, ownIn, type Room } from './way';

/** Seconds of silence before it begins. */
const LEAD = 0.5;

/** What it is asked to play, beside kept lines by their ids: the target line with what leads in, or a found line. */
export const PLAYED = { targets: 'targets', found: 'found' } as const;

/** What the simulated player is asked for. */
export interface PlayerWish {
  /** 0 to 1. */
  readonly skill: number;
  readonly tone: Tone;
  /** What its sound goes through; dry where there is none. */
  readonly effect?: Effect | undefined;
  readonly seed: number;
  readonly what: string;
  readonly rounds: number;
}

export async function simulate(
  room: Room,
  { skill, tone, effect, seed, what, rounds: wished }: PlayerWish
): Promise<void> {
  const { workspace, rehearsal, trading, notices, work, shelf } = room;
  notices.problem = '';
  trading.forget();
  const line = lineFor(workspace, what);
  if (!line || line.length === 0) {
    notices.problem = 'There is no line to play yet. Write a chord or two first.';
    return;
  }
  const { form } = workspace.sheet;
  const tempo = rehearsal.tempo.sounding;
  if (trading.bars && !trading.canCall(trading.bars)) return;
  // In a form that is one turn long the player's turn is the second round.
  const rounds = trading.bars ? Math.max(2, wished) : wished;
  const trade = trading.over(rounds);
  const turns = trade && turnsIn(form, trade.bars, rounds);
  const all = Array.from({ length: rounds }, (_, round) =>
    line.map((note) => ({ ...note, start: note.start + ticksOf(round * form.beats) }))
  )
    .flat()
    .filter(({ start }) => !turns || turnAt(turns, beatsOf(start))?.isOwn);
  const beatAt = swungBeats(workspace.sheet, rehearsal.rounds.feel, tempo);
  const strokes = perform(all, {
    skill,
    seed,
    secondOf: (tick) => LEAD + (beatAt(beatsOf(tick)) * 60) / tempo,
    changes: Array.from({ length: rounds }, (_, round) =>
      form.changes.map(({ start }) => ticksOf(start + round * form.beats))
    ).flat()
  });
  const heard = await work.run('The simulated player plays and is read', async (listener) => {
    const samples = await listener.sound(strokes, tone, effect);
    return { ...(await listener.listen(samples, RATE, work.onShare())), seconds: samples.length / RATE };
  });
  if (!heard) return;
  await shelf.keep({
    name: `Simulated player, skill ${Math.round(skill * 100)} %`,
    seconds: heard.seconds,
    data: ownIn(room, {
      ...frameIn(room, 'player', tempo, LEAD),
      // A line of its own lands where it was written to; the target line where it is meant.
      ...(what === PLAYED.targets
        ? {}
        : { targets: meantBy(line, workspace.analysis.changes, workspace.sheet.form) }),
      ...heardParts(heard),
      player: { skill, tone, ...(effect ? { effect } : {}), seed, strokes },
      ...(trade ? { trade } : {})
    })
  });
}

function lineFor(workspace: Workspace, what: string): readonly LineNote[] | null {
  const { arrangement, paths } = workspace;
  if (what === PLAYED.targets) return paths.path && arrangement.skeleton(paths.path).notes;
  if (what === PLAYED.found) {
    const wish = { level: 'phrases', subdivision: 2, seed: 0, alternatives: 1, pickup: false } as const;
    // One voice: of two notes at once the upper one.
    const notes = linesOf(arrangement, wish).lines[0]?.notes ?? null;
    return notes && notes.filter(({ start, ghost }, i) => !ghost && notes[i + 1]?.start !== start);
  }
  return workspace.storedLines.find(({ id }) => id === what)?.data?.notes ?? null;
}
