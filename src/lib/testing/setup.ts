/** Before the tests of each file. */
import fc from 'fast-check';

/** What property tests try is drawn from one seed, so that they ask the same of every machine; `npm run bench -- properties` draws anew. */
if (process.env.CORVEL_LARGE === undefined) fc.configureGlobal({ seed: 20_261_102 });
