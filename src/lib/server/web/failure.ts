/** What can go wrong with the songbook's file, told apart. */
import { PlayerError } from '../../api/errors';

interface Failure {
  readonly status: 500 | 503 | 507;
  readonly code: string;
  /** What it means for the file, to stand behind "The songbook …" or its path. */
  readonly says: string;
  readonly advice: string;
}

/** By the beginning of the code that SQLite or the system gives; the first that fits. */
const FAILURES: readonly (readonly [RegExp, Failure])[] = [
  [
    /^SQLITE_(BUSY|LOCKED)/,
    {
      status: 503,
      code: 'file-busy',
      says: 'is in use by another program',
      advice: 'Close that program, or wait a moment, and try again.'
    }
  ],
  [
    /^(SQLITE_FULL|ENOSPC|EDQUOT)/,
    {
      status: 507,
      code: 'disk-full',
      says: 'cannot grow: the disk is full',
      advice: 'Free some space; nothing that was saved is lost.'
    }
  ],
  [
    /^(SQLITE_READONLY|EROFS|SQLITE_IOERR_(WRITE|FSYNC|TRUNCATE))/,
    {
      status: 500,
      code: 'file-not-writable',
      says: 'cannot be written to',
      advice: 'Allow writing to it and to its folder, or set CORVEL_DB to another file.'
    }
  ],
  [
    /^(EACCES|EPERM|SQLITE_(CANTOPEN|PERM|AUTH|IOERR))/,
    {
      status: 500,
      code: 'file-not-readable',
      says: 'cannot be opened for reading and writing',
      advice:
        'Look whether the file and its folder may be read and written, or set CORVEL_DB to another file.'
    }
  ],
  [
    /^SQLITE_(CORRUPT|NOTADB|FORMAT)/,
    {
      status: 500,
      code: 'file-damaged',
      says: 'is damaged or is not a Corvel songbook',
      advice: 'It was left untouched; move it away or set CORVEL_DB to another file.'
    }
  ]
];

/** The trouble that an error of SQLite or of the system speaks of; null where it is another kind of error. */
export function failureOf(thrown: unknown): Failure | null {
  const code = thrown instanceof Error ? (thrown as NodeJS.ErrnoException).code : undefined;
  if (typeof code !== 'string') return null;
  return FAILURES.find(([pattern]) => pattern.test(code))?.[1] ?? null;
}

/** The same as the answer to a request. */
export function fileProblem(thrown: unknown): PlayerError | null {
  const failure = failureOf(thrown);
  if (!failure) return null;
  const { status, code, says, advice } = failure;
  return new PlayerError(status, { code, message: `The songbook ${says}. ${advice}` });
}
