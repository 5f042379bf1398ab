import { reading, writing } from '$lib/server/web/ask';

export const GET = reading('lines.list');

export const POST = writing('lines.keep');
