/** Every computation that can be asked for by a route: what it takes, and what answers it. It knows nothing of the songbook. */
import {
  analysisRequest,
  bandRequest,
  exportRequest,
  guideTonesRequest,
  importRequest,
  lickFitRequest,
  lineRequest,
  linesRequest,
  moveRequest,
  outlineRequest,
  placeRequest,
  positionMapRequest,
  practiceRequest,
  scaleChoicesRequest,
  shapeRequest,
  takeRequest,
  targetsRequest,
  triadPathRequest,
  unitsRequest,
  voicingsRequest
} from '../../api/requests';
import { computing, computingFile, computingSound } from '../threads/job';
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
  analysis: computing(analysisRequest, answerAnalysis),
  band: computingFile(bandRequest, answerBand),
  export: computingFile(exportRequest, answerExport),
  'guide-tones': computing(guideTonesRequest, answerGuideTones),
  import: computing(importRequest, answerImport),
  line: computing(lineRequest, answerLine),
  'lick-fit': computing(lickFitRequest, answerLickFit),
  lines: computing(linesRequest, answerLines),
  listen: computingSound(answerListen),
  move: computing(moveRequest, answerMove),
  outline: computing(outlineRequest, answerOutline),
  place: computing(placeRequest, answerPlace),
  'position-map': computing(positionMapRequest, answerPositionMap),
  practice: computing(practiceRequest, answerPractice),
  'scale-choices': computing(scaleChoicesRequest, answerScaleChoices),
  shape: computing(shapeRequest, answerShape),
  take: computing(takeRequest, answerTake),
  targets: computing(targetsRequest, answerTargets),
  'triad-path': computing(triadPathRequest, answerTriadPath),
  units: computing(unitsRequest, answerUnits),
  voicings: computing(voicingsRequest, answerVoicings)
} as const;

export type ComputeName = keyof typeof answers;
