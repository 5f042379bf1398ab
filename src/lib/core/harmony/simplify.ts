/** A chord symbol made simpler: to its triad, or to its seventh chord. Source: docs/music-rules.md, Writing on bars. */
import type { Chord } from '../theory/chord';
import { readChord } from '../theory/chord-reader';
import { DEGREES, type Degree } from '../theory/degree';

export type Simplicity = 'triads' | 'sevenths';

const has = (chord: Chord, degree: Degree) => chord.tones.includes(degree);
const inSlot = (chord: Chord, slot: string) => chord.tones.find((tone) => DEGREES[tone].slot === slot);

function triadOf(chord: Chord): string {
  const third = inSlot(chord, '3');
  const fifth = inSlot(chord, '5');
  if (!third) return has(chord, '11') ? 'sus4' : has(chord, '9') ? 'sus2' : '5';
  if (third === 'b3') return fifth === 'b5' ? 'dim' : 'm';
  return fifth === '#5' ? 'aug' : '';
}

function seventhOf(chord: Chord): string {
  const triad = triadOf(chord);
  const seventh = inSlot(chord, '7');
  const isMinor = triad === 'm' || triad === 'dim';
  if (seventh === 'bb7') return 'dim7';
  if (seventh === '7') return isMinor ? 'm(maj7)' : triad === 'aug' ? 'maj7#5' : 'maj7';
  if (seventh === 'b7') {
    if (triad === 'dim') return 'm7b5';
    if (triad === 'sus4' || triad === 'sus2') return `7${triad}`;
    return triad === 'aug' ? '7#5' : triad === 'm' ? 'm7' : '7';
  }
  return has(chord, '6') && (triad === '' || triad === 'm') ? `${triad}6` : triad;
}

/** The symbol in its simple form, its bass kept; what is no chord stays as typed. */
export function simplified(symbol: string, to: Simplicity): string {
  const reading = readChord(symbol);
  if (reading.kind !== 'chord') return symbol;
  const { chord } = reading;
  const suffix = to === 'triads' ? triadOf(chord) : seventhOf(chord);
  return chord.root + suffix + (chord.bass ? `/${chord.bass}` : '');
}
