/**
 * What has been read of a chord symbol, and how each thing that may be read next changes it. An edit gives false where it denies what was read
 * before, such as a minor chord suspended, or is no tone of any chord. Source: docs/music-rules.md, Chord symbols.
 */
import { sure } from '../../base/list';
import { DEGREES, type Degree, type Slot } from '../degree';

/** What has been read of a symbol so far. */
export interface Draft {
  third: Degree | null;
  suspensions: Degree[];
  fifths: Degree[];
  /** The quality itself has settled the fifth: dim, ø, aug. */
  fifthSettled: boolean;
  sixth: boolean;
  seventh: Degree | null;
  /** The seventh that a following 7, 9, 11 or 13 stands for. */
  seventhMeant: Degree;
  /** How far the thirds are stacked: 7, 9, 11 or 13; 0 where no such number was read. */
  stack: number;
  tensions: Set<Degree>;
  omitted: Set<Slot>;
  /** Nothing but the root has been read. */
  bare: boolean;
  depth: number;
}

/** What the bare root says: a major triad. */
export function emptyDraft(): Draft {
  return {
    third: '3',
    suspensions: [],
    fifths: ['5'],
    fifthSettled: false,
    sixth: false,
    seventh: null,
    seventhMeant: 'b7',
    stack: 0,
    tensions: new Set(),
    omitted: new Set(),
    bare: true,
    depth: 0
  };
}

/** The tones of what was read, as degrees, from the root up. */
export function tonesOf(draft: Draft): Degree[] {
  const tones: Degree[] = ['1'];
  if (draft.third) tones.push(draft.third);
  tones.push(...draft.suspensions, ...draft.fifths);
  if (draft.sixth) tones.push('6');
  if (draft.seventh) tones.push(draft.seventh);
  tones.push(...draft.tensions);
  const order = (tone: Degree) =>
    draft.suspensions.includes(tone) ? 3 : Number.parseInt(DEGREES[tone].interval) || 0;
  const rank = (tone: Degree) => {
    if (tone === '6') return 6;
    const number = order(tone);
    return draft.tensions.has(tone) && !draft.suspensions.includes(tone) ? number + 7 : number;
  };
  return [...new Set(tones)]
    .filter((tone) => !draft.omitted.has(DEGREES[tone].slot))
    .sort((a, b) => rank(a) - rank(b) || DEGREES[a].semitones - DEGREES[b].semitones);
}

/** A sixth goes with no stacked thirds but a major seventh. */
export function addSixth(d: Draft): void | false {
  if (d.tensions.has('b13')) return false;
  if (d.seventh) return addTension(d, '13');
  d.sixth = true;
}

/** Stacks thirds up to a seventh, ninth, eleventh or thirteenth (7, 9, 11, 13). */
export function stackThirds(d: Draft, size: number): void {
  d.seventh ??= d.seventhMeant;
  d.stack = size;
  if (size > 7) d.tensions.add('9');
  // A thirteenth leaves out the 11, which clashes with a major third; a minor one holds it.
  if (size === 11 || (size === 13 && d.third === 'b3')) d.tensions.add('11');
  if (size === 13) d.tensions.add('13');
}

const ADDED_TONE: Readonly<Record<string, Degree>> = {
  '2': '9',
  b2: 'b9',
  '#2': '#9',
  '9': '9',
  b9: 'b9',
  '#9': '#9',
  '4': '11',
  '#4': '#11',
  '11': '11',
  '#11': '#11',
  '6': '6',
  b6: 'b13',
  '13': '13',
  b13: 'b13'
};

/** Adds a tone by its number, altered or not: "9", "#11"; false where no chord has it, or it denies another. */
export function addTone(draft: Draft, name: string): void | false {
  const tone = ADDED_TONE[name];
  if (!tone) return false;
  return tone === '6' ? addSixth(draft) : addTension(draft, tone);
}

/** A ninth, eleventh or thirteenth and the alterations of it. */
const ALTERATIONS: Readonly<Record<string, readonly Degree[]>> = {
  '9': ['b9', '#9'],
  '11': ['#11'],
  '13': ['b13']
};

/** Adds a tension, unless the natural and the altered tone of one number would meet. */
function addTension(draft: Draft, tone: Degree): void | false {
  const natural = tone.replace(/^[b#]/, '') as Degree;
  const others = tone === natural ? sure(ALTERATIONS[natural], 'ALTERATIONS') : [natural];
  if (others.some((other) => draft.tensions.has(other))) return false;
  draft.tensions.add(tone);
}

/** Alters a tension; the natural one goes, where it was only implied by a higher number. */
export function alterTension(draft: Draft, natural: Degree, altered: Degree): void | false {
  const saysNatural = draft.tensions.has(natural) && draft.stack <= Number(natural);
  if (saysNatural || (natural === '11' && draft.suspensions.includes('11'))) return false;
  if (altered === 'b13' && draft.sixth) return false;
  draft.tensions.delete(natural);
  draft.tensions.add(altered);
}

/** Alters the fifth, once or both ways; false where the quality or an omission has settled it. */
export function alterFifth(draft: Draft, fifth: Degree): void | false {
  if (draft.omitted.has('5')) return false;
  if (draft.fifthSettled) return draft.fifths.includes(fifth) ? undefined : false;
  draft.fifths = [...draft.fifths.filter((f) => f !== '5' && f !== fifth), fifth];
}

/** A major seventh, or the one that a number to come will stand for: m9(maj7) raises what its 9 implied. */
export function raiseSeventh(draft: Draft): void | false {
  const isImplied = draft.seventh === 'b7' && draft.third === 'b3' && draft.stack > 7 && !draft.fifthSettled;
  if (draft.seventh && draft.seventh !== '7' && !isImplied) return false;
  draft.seventh = '7';
  draft.seventhMeant = '7';
}

/** Puts a second or fourth in place of the third: "2", "4", "24", or a stack over a fourth, "7", "9", "13". */
export function suspend(draft: Draft, size: string): void | false {
  const isFree = draft.third === '3' || draft.suspensions.length > 0;
  if (!isFree || draft.omitted.has('3') || draft.tensions.has('#11')) return false;
  draft.third = null;
  if (size.includes('2')) draft.suspensions.push('9');
  if (size !== '2') draft.suspensions.push('11');
  if (['7', '9', '13'].includes(size)) stackThirds(draft, Number(size));
}

/** An altered dominant: nothing but the root, third and minor seventh stays natural. */
export function alterAll(draft: Draft): void | false {
  const isPlain = draft.third === '3' && draft.seventhMeant === 'b7' && !draft.fifthSettled && !draft.sixth;
  if (!isPlain || draft.stack > 7) return false;
  draft.seventh = 'b7';
  draft.fifths = ['b5', '#5'];
  draft.tensions = new Set<Degree>(['b9', '#9', ...[...draft.tensions].filter((tone) => /^[b#]/.test(tone))]);
}

/** Leaves out the root, third or fifth; false where it was said. */
export function omit(draft: Draft, slot: Slot): void | false {
  const isSaid = slot === '3' ? draft.third !== '3' : slot === '5' && draft.fifths[0] !== '5';
  if (isSaid) return false;
  draft.omitted.add(slot);
}
