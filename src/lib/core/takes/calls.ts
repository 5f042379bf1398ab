/** What Corvel plays when bars are traded: phrases in the style of the chart, each made for its own turn. */
import { firstOf, lastOf } from '../base/list';
import { endOf, ticksOf, type LineNote } from '../line/model';
import type { Arrangement } from '../plan/arrange';
import { linesOf } from '../plan/lines';
import { turnsIn, type TradeBars } from './trade';

/** After so many rounds the same calls come again. */
const ROUNDS = 4;
/** How dense they are: hardly a bar of a call is empty. */
const DENSITY = 0.6;
/** Seeds of turns and rounds lie apart. */
const [BY_ROUND, BY_TURN] = [7919, 104_729];
/** A call that came out empty is asked for again. */
const TRIES = 4;

/** Corvel's turns of a round, in ticks of the form: in each whole phrases, that end before the player's turn begins. */
export function callsIn(arranged: Arrangement, size: TradeBars, round: number): LineNote[] {
  const { form } = arranged.sheet;
  const turns = turnsIn(form, size, round + 1).filter((turn) => turn.round === round && !turn.isOwn);
  return turns.flatMap((turn, i) => {
    const [from, to] = [ticksOf(turn.from - round * form.beats), ticksOf(turn.to - round * form.beats)];
    const changes = form.changes.filter(
      ({ start, beats, chord }) => chord && ticksOf(start) < to && ticksOf(start + beats) > from
    );
    if (changes.length === 0) return [];
    for (let n = 0; n < TRIES; n++) {
      const { lines } = linesOf(arranged, {
        level: 'phrases',
        subdivision: 2,
        seed: 1 + (round % ROUNDS) * BY_ROUND + (i + n * turns.length) * BY_TURN,
        alternatives: 1,
        density: DENSITY,
        pickup: false,
        from: firstOf(changes).index,
        to: lastOf(changes).index
      });
      const own = (lines[0]?.notes ?? []).filter((note) => note.start >= from && note.start < to);
      if (own.length > 0)
        return own.map((note) => ({ ...note, length: Math.min(endOf(note), to) - note.start }));
    }
    return [];
  });
}
