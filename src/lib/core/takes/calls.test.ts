import { describe, expect, it } from 'vitest';
import { readSheet } from '../harmony/sheet';
import { beatsOf, endOf } from '../line/model';
import { systemOf } from '../neck/systems/registry';
import { STANDARD } from '../neck/tuning';
import { arrange } from '../plan/arrange';
import { DEFAULT_PLAN } from '../plan/model';
import { callsIn } from './calls';
import { turnsIn } from './trade';

const TUNES = [
  '{key: Gb}\n{tempo: 140}\n{style: jazz}\n{feel: swing}\n| Gbmaj7 | Ebm7 | Abm7 | Db7 | Gbmaj7 | Ebm7 | Abm7 | Db7 |',
  '{key: A}\n{tempo: 112}\n{style: blues}\n{feel: shuffle}\n| A7 | D7 | A7 | % | D7 | % | A7 | % | E7 | D7 | A7 | E7 |',
  '{key: Em}\n{tempo: 120}\n{style: rock}\n{feel: rock}\n| Em | C | G | D | Em | C | G | D |'
];
const arranged = (text: string) =>
  arrange({ sheet: readSheet(text), plan: DEFAULT_PLAN }, STANDARD, systemOf('positions')!);

describe('what Corvel calls with', () => {
  it.each(TUNES)('is phrases inside its own turns: %s', (text) => {
    const tune = arranged(text);
    const { form } = tune.sheet;
    for (const size of [2, 4] as const)
      for (const round of [0, 1, 2]) {
        const call = callsIn(tune, size, round);
        const turns = turnsIn(form, size, round + 1).filter((turn) => turn.round === round);
        for (const { isOwn, from, to } of turns) {
          const inside = call.filter((note) => {
            const at = beatsOf(note.start) + round * form.beats;
            return at >= from && at < to;
          });
          if (isOwn) expect(inside).toEqual([]);
          else {
            expect(inside.length, `${size} bars, round ${round}`).toBeGreaterThanOrEqual(3);
            for (const note of inside)
              expect(beatsOf(endOf(note)) + round * form.beats).toBeLessThanOrEqual(to);
          }
        }
      }
  });

  it('is music: not every bar struck on 1, lengths mixed, some notes played with a technique', () => {
    const all = TUNES.flatMap((text) => [0, 1, 2].flatMap((round) => callsIn(arranged(text), 4, round)));
    expect(new Set(all.map(({ length }) => length)).size).toBeGreaterThan(4);
    expect(
      all.filter(({ slur, slide, bend, vibrato }) => slur || slide || bend || vibrato).length
    ).toBeGreaterThan(5);
  });

  it('differs from round to round, and is the same when asked again', () => {
    const tune = arranged(TUNES[1]!);
    const told = (round: number) => JSON.stringify(callsIn(tune, 2, round));
    expect(told(1)).toBe(told(1));
    expect(told(2)).not.toBe(told(0));
  });
});
