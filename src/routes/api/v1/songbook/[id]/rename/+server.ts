import { writing } from '$lib/server/ask';

export const POST = writing('charts.rename');
