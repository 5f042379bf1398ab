import { reading, writing } from '$lib/server/web/ask';

export const GET = reading('charts.list');

export const POST = writing('charts.create');
