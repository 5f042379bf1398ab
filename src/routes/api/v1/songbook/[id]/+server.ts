import { reading, writing } from '$lib/server/web/ask';

export const GET = reading('charts.open');

export const PUT = writing('charts.save');

export const DELETE = writing('charts.delete');
