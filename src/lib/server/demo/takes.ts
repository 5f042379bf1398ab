/** A dozen takes of the Saltmarsh Four's guitarist over ten weeks: the simulated player, getting better. Sounds are made when they are heard. */
import { sure } from '../../core/base/list';
import { keepTake, takeData } from '../../api/take';
import { excerptOf } from '../../core/harmony/excerpt';
import { readSheet } from '../../core/harmony/sheet';
import { chanceOf } from '../../core/line/chance';
import { beatsOf, ticksOf } from '../../core/line/model';
import { STANDARD } from '../../core/neck/tuning';
import { readLine } from '../../core/line/read';
import { swingUnder, swung } from '../../core/line/sound';
import { systemOf } from '../../core/neck/systems/registry';
import { arrange } from '../../core/plan/arrange';
import { linesOf } from '../../core/plan/lines';
import { dayOf } from '../../core/practice/log/day';
import { chartSwing } from '../../core/practice/chart-swing';
import { swingOver } from '../../core/practice/pulse';
import { eventsOf, perform } from '../../core/takes/player/perform';
import type { Database } from '../store/database';
import { idOf } from './practice';
import { openChart } from '../store/songbook';
import { keepNewTake } from '../takes/takes';

const DAY = 24 * 60 * 60 * 1000;
const LEAD = 0.5;
/** By chart: days ago, skill, and the share of the chart's tempo it was played at. */
const PLAYED: Readonly<Record<string, readonly (readonly [ago: number, skill: number, tempo: number])[]>> = {
  'Bilge Pump Blues': [
    [66, 0.3, 0.6],
    [59, 0.42, 0.6],
    [51, 0.4, 0.7],
    [43, 0.55, 0.7],
    [29, 0.6, 0.75],
    [18, 0.62, 0.8],
    [9, 0.75, 0.85],
    [2, 0.84, 0.9]
  ],
  'Lantern on the Stern': [
    [48, 0.35, 0.7],
    [30, 0.5, 0.75],
    [12, 0.66, 0.8],
    [4, 0.78, 0.85]
  ]
};
const TONES = ['bright', 'dark', 'driven'] as const;
const SEED = 23;

export async function seedTakes(db: Database, now: number): Promise<void> {
  const chance = chanceOf(SEED);
  const offset = new Date(now).getTimezoneOffset();
  const charts = await db.selectFrom('chart').select(['id', 'title']).execute();
  for (const [title, takes] of Object.entries(PLAYED)) {
    const chart = charts.find((one) => one.title === title);
    if (!chart) continue;
    const { source, plan } = await openChart(db, chart.id);
    const { form, head, analysis } = readSheet(source);
    const arranged = arrange({ sheet: readSheet(source), plan }, STANDARD, systemOf('positions'));
    for (const [i, [ago, skill, share]] of takes.entries()) {
      const wish = { level: 'phrases', subdivision: 2, seed: i, alternatives: 1, pickup: false } as const;
      const found = linesOf(arranged, wish).lines[0]?.notes ?? [];
      // A string that sounds alone: of two notes at once the upper one, and no touched ones.
      const line = found.filter(({ start, ghost }, n) => !ghost && found[n + 1]?.start !== start);
      // What was meant at each change is what the phrases land on, early or late as they do.
      const { landings } = readLine(
        { meter: head.meter, notes: line },
        { form, analysis, chosen: arranged.chosen }
      );
      const targets = landings.flatMap(({ change, note, by }) => {
        const own = note === undefined || by === 'held' ? undefined : line[note];
        return own ? [{ change, midi: own.midi, at: beatsOf(own.start) }] : [];
      });
      const tempo = Math.round((head.tempo ?? 100) * share);
      const { bars } = sure(excerptOf(form, analysis, { kind: 'form' }), 'excerptOf');
      const swing = swingUnder(line, swingOver(bars, chartSwing(arranged.sheet, tempo)));
      const strokes = perform(line, {
        skill,
        seed: SEED + i,
        secondOf: (tick) => LEAD + (swung(beatsOf(tick), swing) * 60) / tempo,
        changes: form.changes.map(({ start }) => ticksOf(start))
      }).map((stroke) => ({ ...stroke, at: toMillis(stroke.at), seconds: toMillis(stroke.seconds) }));
      const playedAt = now - ago * DAY;
      const take = {
        id: idOf(chance),
        name: i === 0 ? 'First try' : `Take ${i + 1}`,
        playedAt,
        day: dayOf(playedAt, offset),
        seconds: toMillis(LEAD + (form.beats * 60) / tempo),
        data: takeData.parse({
          way: 'player',
          source,
          tempo,
          start: LEAD,
          notes: strokes.map((stroke) => ({
            at: stroke.at,
            seconds: stroke.seconds,
            midi: stroke.midi,
            level: stroke.loudness,
            events: eventsOf(stroke)
          })),
          troubles: [],
          targets,
          player: { skill, tone: TONES[i % TONES.length], seed: SEED + i, strokes },
          isLoved: i === takes.length - 1
        })
      };
      await keepNewTake(db, chart.id, keepTake.parse(take));
    }
  }
}

const toMillis = (seconds: number) => Math.round(seconds * 1000) / 1000;
