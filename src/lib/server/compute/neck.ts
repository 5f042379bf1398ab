/** The routes about the neck: request in, core asked, answer out. Contract: docs/api.md. */
import { sure } from '../../core/base/list';
import { systemOf } from '../../core/neck/systems/registry';
import type { z } from 'zod';
import type {
  positionMapRequest,
  shapeRequest,
  triadPathRequest,
  unitsRequest,
  voicingsRequest
} from '../../api/requests';
import { contextOf } from '../../core/approaches/context';
import { modes } from '../../core/approaches/modes';
import type { ScaleChoice } from '../../core/approaches/choice';
import { readSheet } from '../../core/harmony/sheet';
import { gripStages } from '../../core/moment/grips';
import { arrange } from '../../core/plan/arrange';
import { DEFAULT_PLAN } from '../../core/plan/model';
import { type Area } from '../../core/neck/area';
import { gripPath, type GripStage } from '../../core/neck/grip-path';
import { gripCaution } from '../../core/neck/position';
import { positionMap } from '../../core/neck/position-map';
import { lackingIn, shapeOf, shapeSubject } from '../../core/neck/shape';
import { lowestUnits, unitsOf } from '../../core/neck/unit';
import { VOICING_FACTS, voicedTones, voicingsOf, type Grip } from '../../core/neck/voicing';
import type { Chord } from '../../core/theory/chord';
import { fail } from '../../api/errors';
import {
  cellOut,
  checkApproaches,
  checkPosition,
  checkStringSet,
  chordFrom,
  instrumentFrom,
  partFrom,
  scaleFrom,
  sheetFrom
} from './inputs';

/** POST /api/v1/shape */
export function answerShape(input: z.infer<typeof shapeRequest>) {
  const neck = instrumentFrom(input);
  checkPosition(input.position, neck);
  if (!input.chord && !input.scale) {
    fail(400, { code: 'nothing-to-lay-out', message: 'Name a chord, a scale or both.', path: 'chord' });
  }
  const chord = input.chord ? chordFrom(input.chord) : null;
  const scale = input.scale ? scaleFrom(input.scale) : null;
  const shape = shapeOf(neck, chord, scale, input.position);
  const filled = { ...shape, cells: shape.cells.map(cellOut), stretches: shape.stretches.map(cellOut) };
  if (!input.organise) return filled;
  const subject = shapeSubject(chord, scale);
  const area = systemOf(input.organise).areaAt(neck, subject, input.position);
  return {
    name: shape.name,
    ...areaOut(area),
    position: area.position,
    stretches: area.cells.filter(({ stretch }) => stretch).map(cellOut),
    lacksInReach: lackingIn(area.cells, subject)
  };
}

function areaOut({ name, anchor, box, cells, remark, caution }: Area) {
  return {
    title: name.words,
    anchor,
    ...(box ? { box } : {}),
    cells: cells.map(cellOut),
    ...(remark ? { remark } : {}),
    ...(caution ? { caution } : {})
  };
}

/** POST /api/v1/position-map */
export function answerPositionMap(input: z.infer<typeof positionMapRequest>) {
  const sheet = sheetFrom(input.chart, input.key);
  const neck = instrumentFrom(input);
  checkApproaches([input.approach], 'approach');
  const system = systemOf(input.organise);
  const { from, end, next } = partFrom(sheet.analysis.changes.length, input);
  // One derivation for page and route: a plan that takes the first choice of that approach everywhere.
  const plan = { ...DEFAULT_PLAN, approach: input.approach };
  const { analysis, chosen, subjects } = arrange({ sheet, plan }, neck, system);
  const map = positionMap(neck, system, analysis.key, subjects.slice(from, end));
  return {
    organise: system.id,
    ...(next === undefined ? {} : { next }),
    rows: map.map(({ name, position, areas }) => ({
      position,
      title: name.words,
      areas: areas.flatMap((area, i) =>
        area
          ? [
              {
                change: from + i,
                choice: choiceOut(sure(chosen[from + i], 'the choice of an area')),
                ...areaOut(area),
                position: area.position
              }
            ]
          : []
      )
    }))
  };
}

function choiceOut({ approach, name, root, notes, degrees }: ScaleChoice) {
  return { approach, name, root, notes, degrees };
}

/** POST /api/v1/units */
export function answerUnits(input: z.infer<typeof unitsRequest>) {
  const neck = instrumentFrom(input);
  const chord = chordFrom(input.chord);
  const notes = input.scale ? scaleFrom(input.scale).notes : homeScale(chord);
  return {
    units: lowestUnits(unitsOf(neck, chord, notes)).map((unit) => {
      const caution = gripCaution(unit.grip, neck.capo);
      return {
        rootString: unit.rootString,
        anchor: unit.anchor,
        position: unit.position,
        grip: unit.grip.map(cellOut),
        arpeggio: unit.arpeggio.map(cellOut),
        scale: unit.scale.map(cellOut),
        ...(unit.lacks.length ? { lacksInReach: unit.lacks } : {}),
        ...(caution ? { caution } : {})
      };
    })
  };
}

/** The scale of a chord by itself: its first mode. */
function homeScale(chord: Chord): readonly string[] {
  const { analysis } = readSheet(`| ${chord.symbol} |`);
  const context = contextOf(analysis, 0);
  return (context && modes(context)[0]?.notes) ?? [];
}

/** POST /api/v1/voicings */
export function answerVoicings(input: z.infer<typeof voicingsRequest>) {
  const neck = instrumentFrom(input);
  const chord = chordFrom(input.chord);
  const { voices, name } = VOICING_FACTS[input.type];
  checkStringSet(input.strings, voices, neck);
  if (!voicedTones(chord, voices)) {
    fail(400, {
      code: 'too-few-tones',
      message: `${chord.symbol} has too few tones; ${name.toLowerCase()} takes ${
        voices === 3 ? 'a root, a third or what suspends it, and a fifth' : 'a sixth or seventh too'
      }.`,
      path: 'chord'
    });
  }
  return {
    voicings: voicingsOf(neck, chord, input.type, input.strings).map(({ inversion, cells }) => {
      const caution = gripCaution(cells, neck.capo);
      return { inversion, cells: cells.map(cellOut), ...(caution ? { caution } : {}) };
    })
  };
}

/** POST /api/v1/triad-path */
export function answerTriadPath(input: z.infer<typeof triadPathRequest>) {
  const { analysis } = sheetFrom(input.chart, input.key);
  const neck = instrumentFrom(input);
  checkStringSet(input.strings, VOICING_FACTS.closed.voices, neck);
  const stages = gripStages(analysis, neck, 'closed', input.strings);
  const [first] = stages;
  const start = input.start && first ? startGrip(first, input.start) : null;
  const { grips, total, ranOut } = gripPath(stages, input.direction, start);
  return {
    grips: grips.map(({ change, inversion, cells, moves }) => ({
      change,
      inversion,
      cells: cells.map(cellOut),
      moves
    })),
    total,
    ...(ranOut ? { ranOut } : {})
  };
}

/** The grip of the first chord that the player starts from. */
function startGrip(
  { grips, where }: GripStage,
  { inversion, fret }: { inversion: number; fret: number }
): Grip {
  const rootFret = ({ cells }: Grip) => cells.find(({ degree }) => degree === '1')?.fret;
  const found = grips.find((grip) => grip.inversion === inversion && rootFret(grip) === fret);
  if (found) return found;
  const there = grips.map((grip) => `inversion ${grip.inversion} at fret ${rootFret(grip)}`);
  return fail(400, {
    code: 'no-such-grip',
    message: `${where} has no such grip on these strings, counted by the fret of its root; there is ${there.join(', ') || 'none at all'}.`,
    path: 'start'
  });
}
