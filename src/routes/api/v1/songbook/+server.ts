import { reading, writing } from '$lib/server/ask';

export const GET = reading('charts.list');

export const POST = writing('charts.create');
