import { keepReviews } from '$lib/api/practice';
import { route } from '$lib/server/answer';
import { keepAnswers } from '$lib/server/practice/cards';

export const POST = route(keepReviews, (reviews, { locals }) => keepAnswers(locals.db, reviews));
