/** What a take is made of: the chart and plan of now, what was heard, and of that what the player's own hand played. */
import type { TakeData, WayIn } from '$lib/api/take';
import { excerptOf } from '$lib/core/harmony/excerpt';
import { readSheet, type Sheet } from '$lib/core/harmony/sheet';
import { noteOf, ticksOf } from '$lib/core/line/model';
import { swung } from '$lib/core/line/sound';
import type { Plan } from '$lib/core/plan/model';
import type { Feel } from '$lib/core/practice/feel';
import { quarterTempo, swingAt, swingOver } from '$lib/core/practice/pulse';
import { beatOf } from '$lib/core/takes/align';
import type { MeantTarget } from '$lib/core/takes/judge/judge';
import type { Listened, PlayedNote, RecordedBlock } from '$lib/core/takes/model';
import { ownNotes, turnsIn } from '$lib/core/takes/trade';

/** Seconds of a take that is listened to. */
export const LONGEST_SECONDS = 600;

/** What every take of now has. */
export const frameOf = (
  way: WayIn,
  {
    source,
    plan,
    targets
  }: { readonly source: string; readonly plan: Plan; readonly targets: readonly MeantTarget[] },
  tempo: number,
  start: number
) => ({ way, source, plan, tempo, start, targets: [...targets], latency: null, isLoved: false, remark: '' });

/** What was heard, as it is kept. */
export const heardParts = ({ notes, tuning, troubles }: Listened) => ({
  notes: notes.map((note) => ({ ...note, curve: [...note.curve], events: [...note.events] })),
  tuning,
  troubles: [...troubles]
});

/** Notes that came as notes. */
export const plainParts = (notes: readonly PlayedNote[]) => ({
  notes: notes.map((note) => ({ ...note, cents: 0, confidence: 1, curve: [], events: [] })),
  tuning: 0,
  troubles: []
});

/**
 * A take with the player's own notes alone, as they are written: behind a capo they may sound higher. Where bars were traded, without
 * what Corvel called with. `raised`: semitones of the capo that are not written.
 */
export function ownPart(data: TakeData, raised: number): TakeData {
  const isSounding = data.way === 'microphone' || data.way === 'file' || data.way === 'midi';
  const written =
    raised && isSounding ? data.notes.map((note) => ({ ...note, midi: note.midi - raised })) : data.notes;
  if (!data.trade) return { ...data, notes: written };
  const { form } = readSheet(data.source);
  const call = data.trade.call.map(({ start, length, midi }) => noteOf(start, length, midi));
  const last = Math.max(0, ...written.map(({ at }) => beatOf(data, at)));
  const turns = turnsIn(form, data.trade.bars, Math.floor(last / form.beats) + 1);
  const end = ticksOf(turns.at(-1)?.to ?? 0);
  return {
    ...data,
    notes: ownNotes(written, ({ at }) => beatOf(data, at), turns, call),
    trade: { ...data.trade, call: data.trade.call.filter(({ start }) => start < end) }
  };
}

/** Beats as a feel sounds them at a tempo, round after round. */
export function swungBeats(
  { form, analysis }: Sheet,
  feel: Pick<Feel, 'swing'>,
  tempo: number
): (beat: number) => number {
  const excerpt = excerptOf(form, analysis, { kind: 'form' });
  const [bar] = excerpt?.bars ?? [];
  if (!excerpt || !bar) return (beat) => beat;
  const swing = swingOver(excerpt.bars, swingAt(feel.swing, quarterTempo(tempo, bar)));
  return (beat) => {
    const begun = Math.floor(beat / form.beats) * form.beats;
    return begun + swung(beat - begun, swing);
  };
}

/** Blocks in their places: what was lost on the way is silence. */
export function joinedBlocks(blocks: readonly RecordedBlock[]): Float32Array {
  const first = blocks[0]?.frame ?? 0;
  const last = blocks.at(-1);
  const samples = new Float32Array(last ? last.frame + last.samples.length - first : 0);
  for (const block of blocks) samples.set(block.samples, block.frame - first);
  return samples;
}

/** "Take of 14:05". */
export const takeName = (now: number) => `Take of ${CLOCK.format(now)}`;
const CLOCK = new Intl.DateTimeFormat(undefined, { hour: '2-digit', minute: '2-digit' });
