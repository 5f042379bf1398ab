/** Three notes a string: the shapes of a seven-note scale that run straight up the strings. */
import { firstOf, nth, sure } from '../../base/list';
import { MODES } from '../../theory/mode';
import { pitchClass } from '../../theory/note';
import { scaleOf } from '../../theory/scale';
import { prettyDegree } from '../../theory/typeset';
import { ordinal } from '../../theory/words';
import { areaOf, fillInstead, handFor, type AreaName } from '../area';
import { nearestTo } from '../box';
import { fingerRun } from '../fingering';
import type { PositionCell } from '../position';
import { nameOf } from '../shape';
import { threeAString } from '../three-a-string';
import type { NeckSystem } from './system';

/** A shape of the key's own scale, by the step (1 to 7) it starts on. */
const stepName = (step: number): AreaName => ({ kind: 'step', words: `from the ${ordinal(step)}` });

export const three: NeckSystem = {
  id: 'three',
  title: 'Three notes a string',
  hint: 'Long shapes of seven-note scales',
  rows: (neck, { tonic, mode }) => {
    const { notes } = sure(scaleOf(tonic, MODES[mode].scale), 'scaleOf');
    const steps = notes.map(pitchClass);
    return threeAString(neck, notes)
      .filter(({ anchor }) => anchor + neck.span <= neck.frets)
      .map(({ anchor, cells }) => ({
        name: stepName(steps.indexOf(firstOf(cells).midi % 12) + 1),
        position: anchor
      }));
  },
  /** The shape that starts nearest; fingered string by string. */
  areaAt: (neck, subject, position) => {
    const shape = nearestTo(threeAString(neck, subject.collection.notes), position);
    if (!shape) return fillInstead(neck, subject, position, 'shapes of three notes a string');
    const cells = shape.cells.map((cell): PositionCell => {
      const frets = shape.cells.filter(({ string }) => string === cell.string).map(({ fret }) => fret);
      return { ...cell, finger: nth(fingerRun(frets), frets.indexOf(cell.fret)), stretch: false };
    });
    const { degree } = nameOf(firstOf(shape.cells).midi % 12, subject.naming);
    return areaOf(subject, cells, {
      name: { kind: 'from', words: `from the ${prettyDegree(degree)}` },
      anchor: shape.anchor,
      position: handFor(neck, shape.cells.slice(0, 6))
    });
  }
};
