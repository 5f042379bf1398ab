/** The trainer's cards: what was asked, how it was answered, when each comes again. */
import type { z } from 'zod';
import {
  memory as memorySchema,
  question as questionSchema,
  type keepReviews,
  type StoredCard
} from '../../api/practice';
import { cardId } from '../../core/practice/trainer/card';
import { kindOf } from '../../core/practice/trainer/kinds';
import {
  gradeOf,
  remembered,
  type GradeName,
  type Memory,
  type Review
} from '../../core/practice/trainer/memory';
import { atOnce, type Database } from '../store/database';
import { readColumn } from '../store/songbook';

/** Latest answers that a card is rated against. */
const HISTORY = 20;

/** Every card that was asked; those that cannot be read are left out and kept. */
export async function listCards(db: Database): Promise<StoredCard[]> {
  const rows = await db.selectFrom('card').selectAll().orderBy('due').orderBy('id').execute();
  return rows.flatMap(({ id, data, memory, day }) => {
    const [question, own] = [readColumn(questionSchema, data), readColumn(memorySchema, memory)];
    return question && own ? [{ id, question, memory: own, day }] : [];
  });
}

/** Takes answers: each is rated against its card's history and moves the day on which the card comes again. Sent twice, once. */
export async function keepAnswers(
  db: Database,
  { reviews }: z.infer<typeof keepReviews>
): Promise<{ cards: { id: string; grade: GradeName; due: number }[] }> {
  return atOnce(db, async (trx) => {
    const [cards, now]: [{ id: string; grade: GradeName; due: number }[], number] = [[], Date.now()];
    for (const { id, question, at: told, day, isRight, seconds } of reviews) {
      const card = cardId(question);
      // A clock that is ahead would put a card off for years.
      const at = Math.min(told, now);
      const grades = isRight ? 'good' : 'again';
      const known = await trx.selectFrom('card_review').select('id').where('id', '=', id).executeTakeFirst();
      if (known) continue;
      await trx
        .insertInto('card')
        .values({ id: card, data: JSON.stringify(question), memory: '{}', due: at, day })
        .onConflict((conflict) => conflict.column('id').doNothing())
        .execute();
      await trx
        .insertInto('card_review')
        .values({ id, card_id: card, at, day, seconds, grade: grades })
        .execute();
      const { memory, grade } = await remember(trx, card, kindOf(question.kind).seconds, id);
      await trx
        .updateTable('card')
        .set({ memory: JSON.stringify(memory), due: memory.due })
        .where('id', '=', card)
        .execute();
      cards.push({ id: card, grade, due: memory.due });
    }
    return { cards };
  });
}

/**
 * What is remembered of a card: all its answers in the order of their time, each rated against those before it, so that an answer which
 * arrives late changes nothing but its own place. Gives the grade of the answer that is asked for, too.
 */
async function remember(
  trx: Database,
  card: string,
  usual: number,
  asked: string
): Promise<{ memory: Memory; grade: GradeName }> {
  const rows = await trx
    .selectFrom('card_review')
    .select(['id', 'at', 'seconds', 'grade'])
    .where('card_id', '=', card)
    .orderBy('at')
    .orderBy('seq')
    .execute();
  const history: Review[] = [];
  let memory: Memory | null = null;
  let own: GradeName = 'good';
  for (const row of rows) {
    const review = { at: row.at, seconds: row.seconds, isRight: row.grade !== 'again' };
    const grade = gradeOf(review, history.slice(-HISTORY), usual);
    memory = remembered(memory, grade, row.at);
    if (row.id === asked) own = grade;
    if (grade !== row.grade)
      await trx.updateTable('card_review').set({ grade }).where('id', '=', row.id).execute();
    history.push({ ...review, isRight: grade !== 'again' });
  }
  return { memory: memory!, grade: own };
}
