import { changeLine } from '$lib/api/line';
import { answer, route } from '$lib/server/answer';
import { deleteLine, editLine } from '$lib/server/lines';
import type { RequestHandler } from './$types';

export const PUT = route(changeLine, (edit, { params, locals }) =>
  editLine(locals.db, params.id!, params.line!, edit)
);

export const DELETE: RequestHandler = ({ params, locals }) =>
  answer(() => deleteLine(locals.db, params.id, params.line));
