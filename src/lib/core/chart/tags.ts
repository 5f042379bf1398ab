/** The tags of a chart, a line of its text: `{tags: opener, latin}`. */
import { declared, directivesIn, withDeclaration, withoutDeclaration } from './directives';

const MOST_TAGS = 20;
const LONGEST = 40;

/** One tag as it is kept: no commas, no braces, single spaces; empty where nothing is left. */
export function readTag(text: string): string {
  return text
    .replaceAll(/[,{}\s]+/gu, ' ')
    .trim()
    .slice(0, LONGEST)
    .trim();
}

const isSame = (a: string, b: string) => a.toLowerCase() === b.toLowerCase();

/** The tags of a text, in their order, each once whatever its case. */
export function tagsOf(source: string): string[] {
  const said = (declared(directivesIn(source), 'tags') ?? '').split(',').map(readTag).filter(Boolean);
  return said.filter((tag, i) => said.findIndex((other) => isSame(other, tag)) === i).slice(0, MOST_TAGS);
}

function withTags(source: string, tags: readonly string[]): string {
  return tags.length ? withDeclaration(source, 'tags', tags.join(', ')) : withoutDeclaration(source, 'tags');
}

/** The text with one more tag; the same where it has it, or has as many as a chart may. */
export function tagged(source: string, text: string): string {
  const [tags, tag] = [tagsOf(source), readTag(text)];
  const isThere = tags.some((one) => isSame(one, tag));
  return !tag || isThere || tags.length >= MOST_TAGS ? source : withTags(source, [...tags, tag]);
}

/** The text without a tag; the same where it has none such. */
export function untagged(source: string, text: string): string {
  const tags = tagsOf(source);
  const rest = tags.filter((one) => !isSame(one, readTag(text)));
  return rest.length === tags.length ? source : withTags(source, rest);
}
