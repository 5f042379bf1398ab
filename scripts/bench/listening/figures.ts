/** How well and how fast Corvel listens, kind by kind; and a general note tracker on the same files, at its best constant shift. */
import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { wavFile } from '../../../src/lib/audio/wav';
import { listenTo } from '../../../src/lib/core/takes/listen/listen';
import { sounded, TONES, type Tone } from '../../../src/lib/core/takes/player/string';
import { expressive, EXPRESSIVE, SOURCES, type Source } from './expressive';
import { liveFigures, type LiveFigure } from './live';
import { scoreOf } from './score';
import {
  hasSynthesizer,
  KINDS,
  specimens,
  SUBDIVISIONS,
  TEMPOS,
  walk,
  type Specimen,
  type TrueNote
} from './set';

export interface ListeningFigure {
  readonly kind: string;
  readonly f: number;
  /** The file that was heard worst. */
  readonly worst: number;
  /** Median of heard less played, in seconds. */
  readonly shift: number;
  /** Processor seconds for a minute of sound. */
  readonly cost: number;
  /** F of the general tracker; absent where it is not installed. */
  readonly tracker?: number;
}

const mean = (values: readonly number[]) => values.reduce((a, b) => a + b, 0) / values.length;
const RATE = 44_100;

/** Lines by the simulated player. */
function simulated(tone: Tone): Specimen[] {
  return TEMPOS.flatMap((tempo) =>
    SUBDIVISIONS.map((subdivision): Specimen => {
      const notes = walk(tempo, subdivision, TONES.indexOf(tone) + tempo);
      const samples = sounded(
        notes.map((note) => ({ ...note, loudness: 0.8 })),
        tone,
        RATE
      );
      return { kind: `player, ${tone}`, name: `${tone}-${tempo}-${subdivision}`, samples, rate: RATE, notes };
    })
  );
}

/** How soon a note is told while it is played, kind by kind. */
export function liveListeningFigures(dir: string): (LiveFigure & { readonly kind: string })[] {
  return allSets(dir).map((set) => ({ kind: set[0]!.kind, ...liveFigures(set) }));
}

const allSets = (dir: string): Specimen[][] => [
  ...TONES.map(simulated),
  ...(hasSynthesizer() ? KINDS.map((kind) => specimens(dir, kind)) : [])
];

/** Every kind of the set; those of the synthesizer where it is installed. */
export function listeningFigures(dir: string): ListeningFigure[] {
  return allSets(dir).map((set) => {
    const before = process.cpuUsage().user;
    const scores = set.map(({ samples, rate, notes }) => scoreOf(listenTo(samples, rate).notes, notes));
    const cost = (process.cpuUsage().user - before) / 1e6;
    const minutes = set.reduce((sum, { samples, rate }) => sum + samples.length / rate, 0) / 60;
    const tracked = trackerOf(dir, set);
    return {
      kind: set[0]!.kind,
      f: mean(scores.map(({ f }) => f)),
      worst: Math.min(...scores.map(({ f }) => f)),
      shift: mean(scores.map(({ shift }) => shift)),
      cost: cost / minutes,
      ...(tracked === null ? {} : { tracker: tracked })
    };
  });
}

export interface ExpressiveFigure {
  readonly kind: string;
  readonly least: number;
  /** Mean F of each source. */
  readonly f: Readonly<Partial<Record<Source, number>>>;
  readonly tracker?: number;
  /** Mean F where the listener is told what leaks in. */
  readonly known?: number;
}

export interface ExpressiveFigures {
  readonly kinds: readonly ExpressiveFigure[];
  /** Notes an octave off, of all that were heard. */
  readonly octaves: number;
  readonly notes: number;
  /** The chance that a right note is told with more confidence than a wrong one. */
  readonly confidence: number;
  /** Of bends, slides, releases and vibratos that were played: heard, and cents off in the middle; and those that nobody played. */
  readonly events: {
    readonly played: number;
    readonly heard: number;
    readonly extra: number;
    readonly off: number;
  };
}

/** Every expressive kind from every source there is. */
export function expressiveFigures(dir: string): ExpressiveFigures {
  const [right, wrong, off]: [number[], number[], number[]] = [[], [], []];
  let [octaves, notes, playedEvents, heardEvents, extra] = [0, 0, 0, 0, 0];
  const sources = SOURCES.filter(
    (source) => !source.endsWith('font') || hasSynthesizer(source === 'own font' ? 'own' : 'other')
  );
  const kinds = EXPRESSIVE.map((kind): ExpressiveFigure => {
    const tracked: number[] = [];
    const told: number[] = [];
    const f = sources.map((source) => {
      const set = expressive(dir, kind, source);
      const found = set.map((specimen) => {
        const heard = listenTo(specimen.samples, specimen.rate).notes;
        for (const note of heard) {
          notes++;
          const near = specimen.notes.filter(({ at }) => Math.abs(at - note.at) < 0.05);
          const own = near.find(({ midi }) => midi === note.midi);
          (own ? right : wrong).push(note.confidence);
          if (!own && near.some(({ midi }) => (midi - note.midi) % 12 === 0)) octaves++;
          if (!own) continue;
          const wanted = [
            ...(own.bend ? [100 * (own.midi - own.bend.from)] : []),
            ...(own.release ? [100 * (own.release.to - own.midi)] : [])
          ];
          const glides = note.events.filter((event) => event.kind !== 'vibrato');
          playedEvents += wanted.length + Number(own.vibrato !== undefined && own.seconds > 0.7);
          heardEvents += Math.min(wanted.length, glides.length);
          wanted.slice(0, glides.length).forEach((cents, i) => off.push(Math.abs(cents - glides[i]!.cents)));
          extra += Math.max(0, glides.length - wanted.length);
          const shaken = note.events.find((event) => event.kind === 'vibrato');
          if (shaken && own.vibrato) {
            if (own.seconds > 0.7) heardEvents++;
            off.push(Math.abs(shaken.cents - own.vibrato.cents));
          } else if (shaken) extra++;
        }
        if (specimen.known) {
          const { samples, rate, known } = specimen;
          told.push(scoreOf(listenTo(samples, rate, undefined, known).notes, specimen.notes).f);
        }
        return scoreOf(heard, specimen.notes).f;
      });
      const tracker = trackerOf(dir, set);
      if (tracker !== null) tracked.push(tracker);
      return [source, mean(found)] as const;
    });
    return {
      kind: kind.name,
      least: kind.least,
      f: Object.fromEntries(f),
      ...(tracked.length ? { tracker: mean(tracked) } : {}),
      ...(told.length ? { known: mean(told) } : {})
    };
  });
  const wins = right.reduce((sum, own) => sum + wrong.filter((other) => own > other).length, 0);
  off.sort((a, b) => a - b);
  return {
    kinds,
    octaves,
    notes,
    confidence: wins / (right.length * wrong.length),
    events: { played: playedEvents, heard: heardEvents, extra, off: off[off.length >> 1] ?? NaN }
  };
}

/** The F of `aubionotes` over a set, all its notes moved by the one shift that serves it best; null where it is not installed. */
function trackerOf(dir: string, set: readonly Specimen[]): number | null {
  const heard = set.map((specimen) => trackedNotes(dir, specimen));
  if (heard.some((notes) => notes === null)) return null;
  const shifts = Array.from({ length: 21 }, (_, i) => (i - 10) / 100);
  return Math.max(
    ...shifts.map((by) =>
      mean(
        set.map(
          ({ notes }, i) =>
            scoreOf(
              heard[i]!.map((note) => ({ ...note, at: note.at + by })),
              notes
            ).f
        )
      )
    )
  );
}

function trackedNotes(dir: string, { samples, rate, name, kind }: Specimen): TrueNote[] | null {
  const file = join(dir, `${kind}-${name}.wav`.replaceAll(/[ ,]+/g, '-'));
  writeFileSync(file, wavFile(samples, rate));
  try {
    const lines = execFileSync('aubionotes', ['-i', file], {
      encoding: 'utf8',
      stdio: ['ignore', 'pipe', 'ignore']
    });
    return lines.split('\n').flatMap((line): TrueNote[] => {
      const [midi, at, end] = line.trim().split(/\s+/).map(Number);
      return end === undefined ? [] : [{ midi: Math.round(midi!), at: at!, seconds: end - at! }];
    });
  } catch {
    return null;
  }
}
