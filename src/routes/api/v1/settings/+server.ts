import { settingsSchema } from '$lib/api/settings';
import { route } from '$lib/server/answer';
import { writeSettings } from '$lib/server/settings';

export const PUT = route(settingsSchema, (settings, { locals }) => writeSettings(locals.db, settings));
