/** The route of the band: a chart in, a Standard MIDI File out. Contract: docs/api.md. */
import { lastOf } from '../../core/base/list';
import type { z } from 'zod';
import type { bandRequest } from '../../api/requests';
import { midiFile } from '../../core/formats/midi/band';
import { excerptOf } from '../../core/harmony/excerpt';
import type { Style } from '../../core/harmony/style';
import { drillOf } from '../../core/line/drills';
import { systemOf } from '../../core/neck/systems/registry';
import { arrange } from '../../core/plan/arrange';
import { DEFAULT_PLAN } from '../../core/plan/model';
import { chordsOn, feelNamed, feelOf, feelOfStyle } from '../../core/practice/feel';
import { intensityOf } from '../../core/practice/intensity';
import { DEFAULT_TEMPO } from '../../core/practice/ladder';
import { practiceRound, type PlanMaterial } from '../../core/practice/round';
import { findTargets } from '../../core/targets/path';
import { fail } from '../../api/errors';
import { checkPosition, instrumentFrom, sheetFrom } from './inputs';

/** Changes that one file holds, all rounds together. */
const MOST_CHANGES = 8000;

/** POST /api/v1/band: the file. */
export function answerBand(input: z.infer<typeof bandRequest>) {
  const sheet = sheetFrom(input.chart, input.key, input.style);
  const neck = instrumentFrom(input);
  if (input.position !== undefined) checkPosition(input.position, neck);
  const { head, form } = sheet;
  const plan = { ...DEFAULT_PLAN, loop: true, position: input.position ?? null };
  const arrangement = arrange({ sheet, plan }, neck, systemOf('positions'));
  const { analysis } = arrangement;
  if (analysis.changes.length * input.rounds > MOST_CHANGES) {
    fail(413, {
      code: 'too-many-rounds',
      message: `${input.rounds} rounds of ${analysis.changes.length} changes are more than one file holds (${MOST_CHANGES} changes). Ask for fewer rounds.`,
      path: 'rounds'
    });
  }
  const excerpt = excerptOf(form, analysis, { kind: 'form' });
  if (!excerpt) {
    return fail(400, {
      code: 'nothing-to-play',
      message: 'There is no bar to play in this chart.',
      path: 'chart'
    });
  }
  const tempo = head.tempo ?? DEFAULT_TEMPO;
  const said = head.feel ?? (input.style ? feelOfStyle(input.style as Style) : null);
  const feel = (input.feel && feelNamed(input.feel)) || feelOf(said, head.meter);
  const drill = (input.drill && drillOf(input.drill)) || null;
  const path = drill ? findTargets(analysis, arrangement.targetOptions(plan.thread)).paths[0] : undefined;
  const skeleton = path ? arrangement.skeleton(path) : null;
  const material: PlanMaterial = {
    analysis,
    neck,
    areas: drill ? arrangement.areas : [],
    areasUp: arrangement.areasUp,
    targets: new Map(path?.targets.map((target) => [target.change, target])),
    skeleton: () => skeleton
  };
  const { seed, rounds, subdivision: perBeat } = input;
  const played = Array.from({ length: rounds }, (_, round) => {
    const isLast = round === rounds - 1;
    const start = round * excerpt.beats;
    const own = practiceRound(material, excerpt, {
      feel,
      drill,
      perBeat,
      tempo,
      seed,
      round,
      isLast,
      ending: input.ending,
      intensity: intensityOf(input.intensity, round)
    });
    return { start, events: own.events, excerpt: own.excerpt, slowing: own.slowing };
  });
  const last = lastOf(played);
  const moved = <T extends { readonly start: number }>(things: readonly T[], by: number) =>
    things.map((thing) => ({ ...thing, start: thing.start + by }));
  const bytes = midiFile({
    title: head.title ?? '',
    tempo,
    meter: head.meter,
    key: analysis.key,
    kit: feel.kit,
    chordsOn: chordsOn(feel),
    bars: played.flatMap(({ start, excerpt: own }) => moved(own.bars, start)),
    tempos: input.ending
      ? moved(last.slowing, last.start).map(({ start, part }) => ({
          start,
          tempo: tempo * part
        }))
      : [],
    markers: played.flatMap(({ start, excerpt: own }) =>
      own.changes.map((change) => ({ start: start + change.start, name: change.source.symbol }))
    ),
    events: played.flatMap(({ start, events }) =>
      moved(events, start).filter(({ part }) => part !== 'click')
    ),
    beats: last.start + last.excerpt.beats
  });
  return { base64: Buffer.from(bytes).toString('base64'), type: 'audio/midi', name: 'band.mid' };
}
