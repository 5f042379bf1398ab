/** Every reader against what nobody meant it to read: it answers, or says in a sentence why it cannot; it never fails any other way. */
import { strToU8, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { chanceOf } from '../line/chance';
import { noteOf, TICKS } from '../line/model';
import { readChartList } from './csv/list';
import { NotReadable } from './not-readable';
import type { ReadPiece } from './piece';
import { FORMATS, formatOf, type FileFormat } from './registry';
import { pieceOf } from './testing';

/** Inputs of each kind; ten times as many in `npm run bench -- fuzz`. */
const INPUTS = process.env.CORVEL_LARGE ? 10_000 : 1000;
const LINE = [62, 65, 69, 72, 70, 67].map((midi, i) => noteOf((i * TICKS) / 2, TICKS / 2, midi));
const piece = pieceOf([{ name: 'line: Short', notes: LINE }], '{title: Hull}\n{key: Dm}\n| Dm7 | G7 |');

/** A true file of a format, to be spoilt. */
function truth({ id, write }: FileFormat): Uint8Array {
  if (id === 'mxl') return zipSync({ 'tune.xml': truth(formatOf('musicxml')!) });
  const file = write?.(piece) ?? 'Dm7 - G7, Cmaj7\nA: Dm7 G7 x2\n[Dm7]words and [G7]more\nii V I in Bb';
  return typeof file === 'string' ? strToU8(file) : file;
}

/** Bytes cut out, doubled, changed, or put in the place of others. */
function spoilt(bytes: Uint8Array, seed: number): Uint8Array<ArrayBuffer> {
  const chance = chanceOf(seed, bytes.length);
  const at = (length: number) => Math.floor(chance() * length);
  let out = Uint8Array.from(bytes);
  for (let times = 1 + at(4); times > 0; times--) {
    const [from, size] = [at(out.length), 1 + at(24)];
    const way = chance();
    if (way < 0.3) out = Uint8Array.from([...out.subarray(0, from), ...out.subarray(from + size)]);
    else if (way < 0.5) out = Uint8Array.from([...out.subarray(0, from + size), ...out.subarray(from)]);
    else if (way < 0.6) out = out.slice(0, from);
    else for (let i = from; i < Math.min(out.length, from + 1 + at(4)); i++) out[i] = at(256);
  }
  return out;
}

describe('readers of files', () => {
  it('take no bar without an end: a part of nothing, a length beyond all bars', () => {
    const tab = formatOf('tab')!;
    const text = Buffer.from(truth(tab)).toString('utf8');
    for (const length of ['1/0', '999999999', '9e9', '1/0000']) {
      const [, first] = /\n\s+(\S+)@/.exec(text)!;
      const { read } = tab;
      const { lines } = (read as { read: (text: string) => ReadPiece }).read(
        text.replace(`${first}@`, `${length}@`)
      );
      for (const { start, length: own } of lines.flatMap(({ notes }) => notes))
        expect(Number.isFinite(start + own)).toBe(true);
    }
  });

  it.each((FORMATS as readonly FileFormat[]).filter(({ read }) => read).map(({ id }) => id))(
    '%s answers or refuses with a sentence, whatever it is given',
    (id) => {
      const format = formatOf(id)!;
      const { read } = format;
      const whole = truth(format);
      const decoder = (bytes: Uint8Array) => Buffer.from(bytes).toString('utf8');
      let answered = 0;
      for (let seed = 0; seed < INPUTS; seed++) {
        const bytes = spoilt(whole, seed);
        try {
          const piece = read!.from === 'text' ? read!.read(decoder(bytes)) : read!.read(bytes);
          expect(Array.isArray(piece.left)).toBe(true);
          answered++;
        } catch (thrown) {
          if (!(thrown instanceof NotReadable)) throw new Error(`input ${seed}`, { cause: thrown });
          expect(thrown.message).toMatch(/^[A-Z“].+\.$/);
        }
      }
      // Most of what is only a little wrong can still be read in a format of lines; one that is counted is refused.
      expect(answered).toBeGreaterThan(0);
    },
    120_000
  );

  it('tables of charts are answered or refused with a sentence, whatever they are given', () => {
    const whole = strToU8('title,key,tempo,chords\n"Hull",Dm,90,"| Dm7 | G7 |"\n"Keel",Eb,,Fm7 Bb7 Ebmaj7\n');
    let answered = 0;
    for (let seed = 0; seed < INPUTS; seed++) {
      try {
        answered += readChartList(Buffer.from(spoilt(whole, seed)).toString('utf8')).length;
      } catch (thrown) {
        expect(thrown, `seed ${seed}`).toBeInstanceOf(NotReadable);
      }
    }
    expect(answered).toBeGreaterThan(INPUTS / 2);
  });
});
