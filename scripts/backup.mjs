// Copies the songbook to a file, whole and while Corvel may be running. CORVEL_DB says which; an argument says where to.
import { existsSync, mkdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { say, stop } from './lib/say.mjs';

const path = process.env.CORVEL_DB || 'data/corvel.db';
if (!existsSync(path)) stop(`There is no songbook at ${path}; set CORVEL_DB to where yours lies.`);
const two = (part) => String(part).padStart(2, '0');
const now = new Date();
const day = `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`;
const to = process.argv[2] ?? join(`${path}.copies`, `${day} by hand.db`);
mkdirSync(dirname(to), { recursive: true });
const { default: Sqlite } = await import('better-sqlite3');
const file = new Sqlite(path, { readonly: true, timeout: 5000 });
try {
  await file.backup(to);
} catch (error) {
  stop(`The songbook could not be copied to ${to} (${error.code ?? error.message}).`);
} finally {
  file.close();
}
say(
  `${to} holds the songbook as it is now. The sounds of takes lie in ${path}-takes and are copied like any folder.`
);
