import { reading, writing } from '$lib/server/web/ask';

export const GET = reading('log.list');

export const POST = writing('log.record');
