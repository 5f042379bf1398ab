/** What a job is: the work behind one route, done in a thread. What a request brings goes there unread. */
import type { z } from 'zod';
import { parse, readJson } from '../web/body';
import type { Database } from '../store/database';

/** The parts of paths by which routes name things. */
export type Params = Readonly<Record<'id' | 'line' | 'take' | 'name' | 'version', string>>;

/** The parts of one path; those that it does not have are empty. */
export const paramsOf = (parts: Partial<Params>): Params => ({ ...NO_PARTS, ...parts });
const NO_PARTS: Params = { id: '', line: '', take: '', name: '', version: '' };

/** What a request brings: parts of its path, its query, its body. */
export interface Call {
  readonly params: Params;
  readonly query: Readonly<Record<string, string>>;
  readonly bytes: Uint8Array<ArrayBuffer>;
}

/** The answer of a job: JSON, or a file with its media type and name. */
export interface Answer {
  readonly body: string | Uint8Array<ArrayBuffer>;
  readonly type: string;
  readonly name?: string;
}

/** The songbook is opened only by jobs that ask for it. */
export type OpenSongbook = () => Promise<Database>;
export type Job = (call: Call, songbook: OpenSongbook) => Promise<Answer> | Answer;

/** A file as a computation gives it: its bytes, media type and name. */
export interface AnsweredFile {
  readonly base64: string;
  readonly type: string;
  readonly name: string;
}

export const json = (value: unknown): Answer => ({
  body: JSON.stringify(value ?? {}),
  type: 'application/json'
});

/** A computation over the request's JSON. */
export const computing =
  <T extends z.ZodType>(schema: T, work: (input: z.infer<T>) => unknown): Job =>
  ({ bytes }) =>
    json(work(parse(schema, readJson(bytes))));

/** A computation that gives a file. */
export const computingFile =
  <T extends z.ZodType>(schema: T, work: (input: z.infer<T>) => AnsweredFile): Job =>
  ({ bytes }) => {
    const { base64, type, name } = work(parse(schema, readJson(bytes)));
    return { body: new Uint8Array(Buffer.from(base64, 'base64')), type, name };
  };

/** A computation over a sound, which is the body as it comes. */
export const computingSound =
  (work: (input: { wav: Uint8Array<ArrayBuffer> }) => unknown): Job =>
  ({ bytes }) =>
    json(work({ wav: bytes }));

/** Work on the songbook that needs no body; `query` is read through its schema. */
export const reading =
  <T extends z.ZodType>(
    schema: T,
    work: (db: Database, query: z.infer<T>, params: Call['params']) => unknown
  ): Job =>
  async ({ query, params }, songbook) =>
    json(await work(await songbook(), parse(schema, query), params));

/** Work on the songbook over the request's JSON. */
export const keeping =
  <T extends z.ZodType>(
    schema: T,
    work: (db: Database, input: z.infer<T>, params: Call['params']) => unknown
  ): Job =>
  async ({ bytes, params }, songbook) =>
    json(await work(await songbook(), parse(schema, readJson(bytes)), params));

/** Work on the songbook that the path alone names. */
export const doing =
  (work: (db: Database, params: Call['params']) => unknown): Job =>
  async ({ params }, songbook) =>
    json(await work(await songbook(), params));
