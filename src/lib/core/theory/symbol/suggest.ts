/** A spelling that is understood, offered for a chord symbol that is not. Source: docs/music-rules.md, Chord symbols. */
import { distance } from 'fastest-levenshtein';
import { firstOf, nth } from '../../base/list';
import { DEGREES, type Degree } from '../degree';
import { emptyDraft, tonesOf, type Draft } from './draft';
import { readSuffix } from './suffix';

/** Suffixes offered as suggestions when a symbol was nearly one of them. */
const KNOWN_SUFFIXES: readonly string[] = (
  'm min maj 6 69 m6 m69 7 9 11 13 m7 min7 m9 min9 m11 m13 maj7 maj9 maj13 m(maj7) mMaj7 m7b5 dim dim7 aug aug7 7#5 ' +
  'sus sus2 sus4 7sus 7sus4 9sus4 13sus4 add9 madd9 5 maj7#11 maj7#5 7b5 7b9 7#9 7#11 7b13 7alt alt 7b9b13 9#11 13#11 13b9'
).split(' ');

/** What a chord is at heart: the third or what stands for it, the fifth, the seventh. */
function qualityOf(tones: readonly Degree[]): string {
  const third = tones.find((tone) => tone === '3' || tone === 'b3');
  const suspension = tones.includes('11') ? '11' : '9';
  const rest = tones.filter((tone) => ['5', '7'].includes(DEGREES[tone].slot) || tone === '6');
  return [third ?? suspension, ...rest].join(' ');
}

/** The quality of each of them, worked out when first asked for. */
let knownQualities: readonly string[] | undefined;

function qualityOfSuffix(suffix: string): string {
  const draft = emptyDraft();
  return readSuffix(suffix, draft) === null ? qualityOf(tonesOf(draft)) : '';
}

/**
 * The nearest spelling that is understood. A suggestion never changes the quality: where the nearest ones differ in it, or it
 * denies what has been read so far, none is made.
 */
export function suggest(root: string, suffix: string): string | undefined {
  const qualities = (knownQualities ??= KNOWN_SUFFIXES.map(qualityOfSuffix));
  const draft = emptyDraft();
  const stopped = readSuffix(suffix, draft) ?? 0;
  // An m alone settles nothing: that of a mistyped maj7 is no minor chord.
  const isSettled = stopped > 0 && !/^m$/i.test(suffix.slice(0, stopped));
  const ranked = KNOWN_SUFFIXES.map((known, i) => ({
    known,
    quality: nth(qualities, i),
    d: isSwapOf(known, suffix) ? 1 : distance(known, suffix)
  })).sort(
    // Of two as near, the plainer one.
    (a, b) => a.d - b.d || a.known.length - b.known.length
  );
  const best = firstOf(ranked);
  if (best.d > Math.max(1, Math.floor(suffix.length / 2))) return undefined;
  const nearest = ranked.filter(({ d }) => d === best.d);
  const keeps = ({ quality }: { readonly quality: string }) => keepsQuality(quality.split(' '), draft);
  const fitting = isSettled ? nearest.filter(keeps) : nearest;
  const isSure = fitting.length > 0 && fitting.every(({ quality }) => quality === firstOf(fitting).quality);
  return isSure ? root + firstOf(fitting).known : undefined;
}

/** Whether two words differ by two neighbouring letters changed over. */
function isSwapOf(a: string, b: string): boolean {
  const at = [...a].findIndex((letter, i) => letter !== b[i]);
  return at >= 0 && a.slice(0, at) + a.charAt(at + 1) + a.charAt(at) + a.slice(at + 2) === b;
}

/** Whether a quality holds everything that a draft has settled. */
function keepsQuality(quality: readonly string[], draft: Draft): boolean {
  const seventh = draft.seventh ?? (draft.seventhMeant === 'b7' ? null : draft.seventhMeant);
  const third = draft.third ?? draft.suspensions[0];
  return (
    (third === undefined || quality[0] === third) &&
    (seventh === null || quality.includes(seventh)) &&
    (draft.fifths[0] === '5' || draft.fifths.every((fifth) => quality.includes(fifth))) &&
    (!draft.sixth || quality.includes('6'))
  );
}
