/** How well and how fast Corvel listens, kind by kind; and a general note tracker on the same files, at its best constant shift. */
import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { wavFile } from '../../../src/lib/audio/wav';
import { listenTo } from '../../../src/lib/core/takes/listen/listen';
import { sounded, TONES, type Tone } from '../../../src/lib/core/takes/player/string';
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
