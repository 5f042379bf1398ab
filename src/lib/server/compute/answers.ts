/** Every computation that can be asked for by a route, by its name. */
import { answerAnalysis, answerGuideTones, answerScaleChoices } from './harmony';
import { answerBand } from './band';
import { answerExport } from './export';
import { answerImport } from './import';
import { answerPositionMap, answerShape, answerTriadPath, answerUnits, answerVoicings } from './neck';
import { answerLine, answerPlace } from './line';
import { answerListen } from './listen';
import { answerLickFit } from './lick';
import { answerLines } from './lines';
import { answerMove } from './move';
import { answerOutline } from './outline';
import { answerPractice } from './practice';
import { answerTake } from './take';
import { answerTargets } from './targets';

export const answers = {
  analysis: answerAnalysis,
  band: answerBand,
  export: answerExport,
  'guide-tones': answerGuideTones,
  import: answerImport,
  line: answerLine,
  'lick-fit': answerLickFit,
  lines: answerLines,
  listen: answerListen,
  move: answerMove,
  outline: answerOutline,
  place: answerPlace,
  'position-map': answerPositionMap,
  practice: answerPractice,
  'scale-choices': answerScaleChoices,
  shape: answerShape,
  take: answerTake,
  targets: answerTargets,
  'triad-path': answerTriadPath,
  units: answerUnits,
  voicings: answerVoicings
} as const;

export type ComputeName = keyof typeof answers;

export interface ComputeJob {
  readonly name: ComputeName;
  /** Of a route whose body is a sound: nothing; its bytes come beside it. */
  readonly input: unknown;
}
