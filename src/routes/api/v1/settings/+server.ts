import { settingsChange } from '$lib/api/settings';
import { route } from '$lib/server/answer';
import { writeSettings } from '$lib/server/settings';

export const PUT = route(settingsChange, (change, { locals }) => writeSettings(locals.db, change));
