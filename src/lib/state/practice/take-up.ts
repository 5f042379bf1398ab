/** What there is to practise on a chart: its items in the order in which it is learnt, as they are stored. */
import type { StoredLine } from '$lib/api/line';
import type { ItemData } from '$lib/api/practice';
import type { StoredChart } from '$lib/api/songbook';
import { sectionsOf } from '$lib/core/chart/sections';
import { keyText } from '$lib/core/harmony/key';
import { phraseBars } from '$lib/core/line/phrases-in';
import { proposals } from '$lib/core/practice/items/proposals';
import { callRoute } from '../call';
import { Workspace } from '../chart/workspace.svelte';

const AWAY = 'nothing was changed';

export interface NewItem {
  readonly id: string;
  readonly chart: string;
  readonly data: ItemData;
}

/** The items of a chart with its lines, as they are proposed today. */
export async function itemsOf(chart: string): Promise<NewItem[]> {
  const stored = await callRoute<StoredChart>(`songbook/${chart}`, AWAY);
  const { lines } = await callRoute<{ lines: StoredLine[] }>(`songbook/${chart}/lines`, AWAY);
  const workspace = new Workspace(stored, true);
  const { home, rows } = workspace.arrangement;
  const { form, head } = workspace.sheet;
  const away = (position: number) => Math.abs(position - home);
  const positions = rows.map(({ position }) => position).sort((a, b) => away(a) - away(b));
  return proposals({
    id: chart,
    key: keyText(workspace.analysis.key),
    tempo: head.tempo ?? 100,
    bars: form.bars.length,
    sections: sectionsOf(form),
    beats: head.meter.beats,
    // The areas next to the first one, up and down; not the one that is nearly the same.
    positions: [home, ...positions.filter((position) => away(position) > 1)],
    hasMelody: workspace.melody !== null,
    lines: lines.map(({ id, name, data }) => ({
      id,
      name,
      phrases: data ? phraseBars(data.notes, form.bars) : []
    }))
  }).map(({ id, what, name, line, area, key, minutes, after, tempo, form: isForm, bars }) => ({
    id,
    chart,
    data: {
      what,
      name,
      line,
      area,
      key,
      minutes,
      after,
      tempo,
      form: isForm,
      ...(bars ? { over: { kind: 'bars', ...bars } } : {})
    } as ItemData
  }));
}
