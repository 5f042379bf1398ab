/** A bar as it is spoken. */
import type { WrittenBar } from '$lib/core/chart/writing/bars';
import { prettySymbol } from '$lib/core/theory/typeset';
import { listed } from '$lib/core/theory/words';

const beatName = (beat: number) => String(Math.round((beat + 1) * 100) / 100);

/** "Bar 5, section B: Fm7 on beat 1, B♭7 on beat 3. Repeat begins." */
export function barWords(bar: WrittenBar): string {
  const { chords, repeats, index, opensSection, section, meter, changesMeter } = bar;
  const stands =
    repeats > 0
      ? repeats === 1
        ? 'repeats the bar before'
        : 'repeats the two bars before'
      : chords.length === 0
        ? 'no chord'
        : chords.map(({ symbol, beat }) => `${prettySymbol(symbol)} on beat ${beatName(beat)}`).join(', ');
  const marks = [
    bar.repeatStart ? 'repeat begins' : '',
    bar.ending.length ? `ending ${listed(bar.ending.map(String))}` : '',
    bar.repeatEnd ? 'repeat ends' : '',
    bar.leftWord,
    bar.rightWord,
    changesMeter ? `${meter.beats}/${meter.unit}` : '',
    ...bar.notes.map((note) => `note: ${note}`)
  ].filter(Boolean);
  return [
    `Bar ${index + 1}${opensSection && section ? `, section ${section}` : ''}: ${stands}`,
    ...(marks.length ? [marks.join(', ')] : [])
  ].join('. ');
}
