// Everything a newcomer needs: installs, builds, fills the demo songbook and serves it.
import { ensureBuild, ensurePackages } from './lib/setup.mjs';

ensurePackages();
ensureBuild();
process.env.CORVEL_DB ||= 'data/demo.db';
process.env.CORVEL_DEMO = '1';
await import('./start.mjs');
