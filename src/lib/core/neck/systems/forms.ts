/** Chord-form areas: the five areas of a root, named by the open major chord form whose root lies there. */
import { pitchClass } from '../../theory/note';
import { fillAt, positionName, qualityOf, type AreaName } from '../area';
import { boxesOf, formOf, minorPentatonic, nearestTo, relativeMinor, type ChordForm } from '../box';
import { boxArea, boxRows } from './boxes';
import type { NeckSystem } from './system';

const formName = (form: ChordForm): AreaName => ({ kind: 'form', words: `${form} form` });

export const forms: NeckSystem = {
  id: 'forms',
  title: 'Chord-form areas',
  hint: 'By the open chord whose shape lies there',
  rows: (neck, home) => boxRows(neck, home, (box, quality) => formName(formOf(box, quality))),
  /** The area of the chord's root that lies nearest; its notes as in the boxes. */
  areaAt: (neck, subject, position) => {
    const quality = qualityOf(subject.naming.tones);
    const boxes = boxesOf(neck, minorPentatonic(relativeMinor(pitchClass(subject.naming.root), quality)));
    const nearest = nearestTo(boxes, position);
    const name: AreaName = nearest ? formName(formOf(nearest, quality)) : positionName(position);
    return boxArea(neck, subject, position, () => name) ?? fillAt(neck, subject, position, name);
  }
};
