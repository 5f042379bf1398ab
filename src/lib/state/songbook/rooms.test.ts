/** A new chart, before it is one. */
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { fakeStorage } from '$lib/testing/storage';
import { pieceOf } from '$lib/core/formats/testing';
import { writeMusicXml } from '$lib/core/formats/musicxml/write';
import { noteOf, TICKS } from '$lib/core/line/model';
import type { ChartSummary } from '$lib/api/songbook';
import { unzipSync } from 'fflate';

const made = vi.hoisted(() => ({
  charts: [] as { id: string; source: string }[],
  lines: [] as { chart: string; name: string }[],
  many: [] as number[],
  failsAt: 0,
  asked: [] as { query: Record<string, string>; answer: (titles: string[]) => void; fail: () => void }[]
}));
vi.mock('./client', () => ({
  listCharts: (query: Record<string, string>) =>
    new Promise((resolve, reject) =>
      made.asked.push({
        query,
        answer: (titles) => resolve({ charts: titles.map((title) => ({ title, id: title })), total: 3 }),
        fail: () => reject(new Error('The server does not answer.'))
      })
    ),
  changeMany: ({ ids }: { ids: string[] }) => {
    made.many.push(ids.length);
    return made.many.length === made.failsAt ? Promise.reject(new Error('away')) : Promise.resolve(ids);
  },
  wholeChart: (id: string) => Promise.resolve({ title: 'Gangway: I', text: id }),
  createChart: (id: string, source: string) => {
    made.charts.push({ id, source });
    return Promise.resolve({ id });
  }
}));
vi.mock('../lines/client', () => ({
  keepLine: (chart: string, _: string, { name }: { name: string }) => {
    made.lines.push({ chart, name });
    return Promise.resolve({});
  }
}));
const storage = fakeStorage();
const { kept } = storage;
vi.stubGlobal('localStorage', storage);

const { NewChart } = await import('./new-chart.svelte');
const { Listing } = await import('./listing.svelte');
const { Many } = await import('./many.svelte');
const { Importing } = await import('./importing.svelte');
const { OtherCharts } = await import('./other-charts.svelte');
function typing(text: string) {
  const fresh = new NewChart();
  fresh.text = text;
  fresh.typed();
  return fresh;
}
const scoreFile = (name = 'quay.musicxml') =>
  new File([writeMusicXml(pieceOf([{ name: 'line: Gangway', notes: [noteOf(0, TICKS, 62)] }]))], name);

beforeEach(() => {
  kept.clear();
  made.charts = [];
  made.lines = [];
  made.many = [];
  made.failsAt = 0;
});

describe('a new chart', () => {
  it('says what is in it, and what is left out', () => {
    expect(typing('| Gm7 | C7 | Fmaj7 |').verdict).toBe('3 bars in F major. All chords recognised.');
    expect(typing('mooring lines and little else').verdict).toContain('No chord is found');
    expect(typing('Gm7 C7 Fmaj7\nthe lamps go out along the quay').verdict).toContain(
      '1 line or word is left out'
    );
    expect(typing('').verdict).toBe('');
    expect(typing(`| ${'C | '.repeat(40_000)}`).isTooLarge).toBe(true);
  });

  it('turns what was pasted into bars, and makes the chart of those', async () => {
    const fresh = typing('Gm7 - C7 - Fmaj7');
    expect([fresh.isTurned, fresh.sheet!.form.bars.length]).toEqual([true, 3]);
    await fresh.create();
    expect(made.charts[0]!.source).toContain('| Gm7 | C7 | Fmaj7 |');
  });

  it('is one chart however often it is sent, and another once it is typed on', async () => {
    const fresh = typing('| Gm7 |');
    const first = await fresh.create();
    expect(await fresh.create()).toBe(first);
    fresh.text = '| Gm7 | C7 |';
    fresh.typed();
    expect(await fresh.create()).not.toBe(first);
  });

  it('survives leaving, until it is made', async () => {
    const fresh = typing('| Gm7 |');
    const again = new NewChart();
    again.restore();
    expect(again.text).toBe('| Gm7 |');
    await fresh.create();
    const after = new NewChart();
    after.restore();
    expect(after.text).toBe('');
  });

  it('reads an H as German, and lets the player say otherwise', () => {
    const fresh = typing('| Hm7 | E7 | A |');
    expect([fresh.look!.german, fresh.sheet!.form.changes[0]!.symbol]).toEqual([true, 'Bm7']);
    fresh.german = false;
    expect(fresh.look!.german).not.toBe(true);
  });

  it('comes from a file with its lines, as long as nothing else is typed', async () => {
    const fresh = new NewChart();
    await fresh.read(scoreFile());
    expect(fresh.sheet!.form.bars.length).toBeGreaterThan(3);
    const id = await fresh.create();
    expect(made.lines).toEqual([{ chart: id, name: 'Gangway' }]);
    fresh.text += ' ';
    fresh.typed();
    expect(fresh.file).toBeNull();
    await fresh.create();
    expect(made.lines).toHaveLength(1);
  });

  it('says by name that a file cannot be read, and keeps what was typed', async () => {
    const fresh = typing('| Gm7 |');
    await expect(fresh.read(new File(['<score-partwise>'], 'storm.musicxml'))).rejects.toThrow(
      'storm.musicxml'
    );
    expect(fresh.text).toBe('| Gm7 |');
  });
});

describe('the list of charts', () => {
  const listing = () => {
    const told: unknown[] = [];
    const own = new Listing(
      { charts: [], total: 0 } as never,
      { search: '', sort: 'title', tag: 'ferry' },
      {
        onasked: (said) => told.push(said),
        onfailure: (error) => told.push((error as Error).message)
      }
    );
    made.asked = [];
    return { own, told, titles: () => own.found.charts.map(({ title }) => title) };
  };
  const arrived = () => new Promise((resolve) => setTimeout(resolve));

  it('shows what was asked for last, whichever answer comes last, and more behind it', async () => {
    const { own, told, titles } = listing();
    expect([own.isNarrowed, own.asked]).toEqual([true, { sort: 'title', tag: 'ferry' }]);
    own.search = 'k';
    const first = own.refresh();
    own.search = 'keel';
    const second = own.refresh();
    made.asked[1]!.answer(['Keel']);
    made.asked[0]!.answer(['Kelp', 'Keel']);
    await Promise.all([first, second]);
    expect(titles()).toEqual(['Keel']);
    expect(told).toEqual(['search=k&sort=title&tag=ferry', 'search=keel&sort=title&tag=ferry']);
    const more = own.more();
    expect(made.asked[2]!.query['offset']).toBe('1');
    made.asked[2]!.answer(['Keelson']);
    await more;
    expect(titles()).toEqual(['Keel', 'Keelson']);
  });

  it('keeps what it has where the server is away, and asks anew only for another address', async () => {
    const { own, told } = listing();
    const failing = own.sortBy('changed');
    made.asked[0]!.fail();
    await failing;
    expect(told.at(-1)).toBe('The server does not answer.');
    void own.meet(new URLSearchParams('sort=changed&tag=ferry'));
    await arrived();
    expect(made.asked).toHaveLength(1);
    void own.meet(new URLSearchParams('search=tide'));
    expect(made.asked[1]!.query).toEqual({ search: 'tide', offset: '0' });
    expect([own.sort, own.isNarrowed]).toEqual(['practised', false]);
  });
});

describe('the charts beside the one that is open', () => {
  it('are those of what was typed last, whichever answer comes last, without the chart itself', async () => {
    const others = new OtherCharts(() => 'Quay');
    made.asked = [];
    const first = others.find();
    others.search = 'Ga';
    const last = others.find();
    made.asked[1]!.answer(['Gangway', 'Quay']);
    await last;
    made.asked[0]!.answer(['Lamps', 'Gangway']);
    await first;
    expect(made.asked.map(({ query }) => query['search'])).toEqual(['', 'Ga']);
    expect(others.found.map(({ id }) => id)).toEqual(['Gangway']);
    const [failing, good] = [others.find(), others.find()];
    made.asked[2]!.fail();
    made.asked[3]!.answer(['Lamps']);
    await Promise.all([failing, good]);
    expect(others.found.map(({ id }) => id)).toEqual(['Lamps']);
  });
});

describe('many charts at once', () => {
  const shown = ['A', 'B', 'C', 'D', 'E'].map((id) => ({ id }) as ChartSummary);
  const ids = Array.from({ length: 120 }, (_, i) => `chart ${i}`);

  it('are selected one by one, and from the one pressed before', () => {
    const many = new Many();
    many.begin();
    many.press('D', shown, false);
    many.press('B', shown, true);
    expect([...many.ids].sort()).toEqual(['B', 'C', 'D']);
    many.press('C', shown, false);
    many.press('E', shown, true);
    expect([...many.ids].sort()).toEqual(['B', 'C', 'D', 'E']);
    // What is pressed is let go, and with it all on the way.
    many.press('B', shown, true);
    expect([...many.ids]).toEqual([]);
  });

  it('are changed in portions; stopped or failed, it says to which it was done', async () => {
    const many = new Many();
    expect(await many.change('tag', 'gig', ids)).toHaveLength(120);
    expect(made.many).toEqual([50, 50, 20]);
    const going = many.change('delete', undefined, ids);
    many.stop();
    expect(await going).toHaveLength(50);
    [made.many, made.failsAt] = [[], 2];
    expect(await many.change('delete', undefined, ids)).toHaveLength(50);
    expect([(many.failure as Error).message, many.progress]).toEqual(['away', null]);
  });

  it('are one file, each by its title, two of one name apart', async () => {
    const many = new Many();
    many.ids.add('first').add('second');
    const bytes = new Uint8Array(await (await many.asFiles())!.arrayBuffer());
    expect(Object.keys(unzipSync(bytes))).toEqual(['Gangway I.corvel.json', 'Gangway I 2.corvel.json']);
  });
});

describe('many files that come in', () => {
  const files = [
    new File(['{title: Cold Store}\n| Abm7 | Db7 | Gbmaj7 | % |'], 'store.txt'),
    new File(['nothing but words along the quay'], 'words.txt'),
    new File(['| Gm7 | C7 |'], 'loop.txt')
  ];

  it('are looked at before anything is stored, taken where wanted, and gone on with after a failure', async () => {
    const importing = new Importing();
    await importing.read(files);
    expect(importing.files.map(({ title, canBeTaken }) => [title, canBeTaken])).toEqual([
      ['Cold Store', true],
      ['words', false],
      ['loop', true]
    ]);
    expect(importing.files[0]!.says).toBe('4 bars in G♭ major');
    const titles: string[] = [];
    let isAway = true;
    const take = (_: string, __: unknown, title: string) => {
      if (title === 'loop' && isAway) return Promise.reject(new Error('The server does not answer.'));
      titles.push(title);
      return Promise.resolve();
    };
    await importing.take(take);
    expect([importing.problem, importing.taken.length, importing.wanted.length]).toEqual([
      'The server does not answer.',
      1,
      1
    ]);
    isAway = false;
    await importing.take(take);
    expect([titles, importing.problem]).toEqual([['Cold Store', 'loop'], '']);
  });

  it('are read no further once it was stopped, and what is not wanted is left', async () => {
    const importing = new Importing();
    const reading = importing.read(files);
    importing.stop();
    await reading;
    expect([importing.files, importing.progress]).toEqual([[], null]);
    await importing.read(files.slice(0, 1));
    expect(importing.wanted).toHaveLength(1);
    importing.want(importing.files[0]!.id, false);
    expect(importing.wanted).toEqual([]);
  });
});
