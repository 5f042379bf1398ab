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
import type { Database } from '../database';
import { readColumn } from '../songbook';

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
  return db.transaction().execute(async (trx) => {
    const cards: { id: string; grade: GradeName; due: number }[] = [];
    for (const { id, question, at, day, isRight, seconds } of reviews) {
      const known = await trx.selectFrom('card_review').select('id').where('id', '=', id).executeTakeFirst();
      if (known) continue;
      const card = cardId(question);
      const row = await trx.selectFrom('card').select('memory').where('id', '=', card).executeTakeFirst();
      const before: Memory | null = row ? readColumn(memorySchema, row.memory) : null;
      const rows = await trx
        .selectFrom('card_review')
        .select(['at', 'seconds', 'grade'])
        .where('card_id', '=', card)
        .orderBy('seq', 'desc')
        .limit(HISTORY)
        .execute();
      const history = rows.reverse().map((one): Review => ({ ...one, isRight: one.grade !== 'again' }));
      const grade = gradeOf({ at, isRight, seconds }, history, kindOf(question.kind).seconds);
      const next = remembered(before, grade, at);
      const memory = JSON.stringify(next);
      await trx
        .insertInto('card')
        .values({ id: card, data: JSON.stringify(question), memory, due: next.due, day })
        .onConflict((conflict) => conflict.column('id').doUpdateSet({ memory, due: next.due }))
        .execute();
      await trx.insertInto('card_review').values({ id, card_id: card, at, day, seconds, grade }).execute();
      cards.push({ id: card, grade, due: next.due });
    }
    return { cards };
  });
}
