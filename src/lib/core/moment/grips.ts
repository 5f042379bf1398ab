/** The grips of a chart: what each chord offers on a string set, to be joined to a path. */
import type { Analysis } from '../harmony/analysis';
import type { GripStage } from '../neck/grip-path';
import type { Instrument } from '../neck/tuning';
import { VOICING_FACTS, voicedTones, voicingsOf, type Grip, type VoicingType } from '../neck/voicing';

/** Every change whose chord has tones enough for the voicing; rests and thinner chords are passed over. */
export function gripStages(
  analysis: Analysis,
  neck: Instrument,
  type: VoicingType,
  strings: readonly number[]
): GripStage[] {
  const known = new Map<string, Grip[]>();
  return analysis.changes.flatMap(({ chord, index, symbol, bar }): GripStage[] => {
    if (!chord || !voicedTones(chord, VOICING_FACTS[type].voices)) return [];
    const grips = known.get(symbol) ?? voicingsOf(neck, chord, type, strings);
    known.set(symbol, grips);
    return [{ change: index, where: `${symbol} in bar ${bar}`, grips }];
  });
}
