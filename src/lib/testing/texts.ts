/**
 * All texts of the interface, gathered from its sources: what stands between tags and in the attributes that are read, and the
 * strings of code that read like words. For a test that prints them as one list, to be read at a go.
 */
import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join, relative } from 'node:path';
import { parse } from 'svelte/compiler';
import ts from 'typescript';

/** A text with where it stands. */
export interface InterfaceText {
  readonly file: string;
  readonly text: string;
}

/** Attributes and properties that a player reads or hears. */
const READ = new Set([
  'label',
  'hint',
  'title',
  'name',
  'placeholder',
  'alt',
  'unit',
  'says',
  'said',
  'aria-label',
  'aria-valuetext',
  'aria-roledescription',
  'text',
  'message',
  'why',
  'problem',
  'trouble',
  'words'
]);

function files(folder: string, ends: readonly string[]): string[] {
  return readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    if (statSync(path).isDirectory()) return files(path, ends);
    const isTest = /\.test\.ts$|testing/.test(path);
    return !isTest && ends.some((end) => path.endsWith(end)) ? [path] : [];
  });
}

/** One space for any, and nothing around. */
const plain = (text: string) => text.replace(/\s+/g, ' ').trim();
/** Words, not an id, a class, a path or a pattern. */
const isWords = (text: string) =>
  /[a-z]{2}/i.test(text) && (/[a-z’,;:.…] [a-z“]/i.test(text) || /^[A-Z][a-z]+[.!?…]?$/.test(text));

interface Node {
  readonly type: string;
  readonly [key: string]: unknown;
}
const isNode = (value: unknown): value is Node =>
  typeof value === 'object' && value !== null && typeof (value as Node).type === 'string';

/** A run of texts and expressions as it is read: an expression is a gap. */
function templateTexts(source: string): string[] {
  const out: string[] = [];
  const root = parse(source, { modern: true }) as unknown as Node;
  const pieces = (nodes: readonly Node[]) =>
    plain(
      nodes
        .map((node) =>
          node.type === 'Text' ? String(node['data']) : node.type === 'ExpressionTag' ? '…' : ' '
        )
        .join('')
    );
  const walk = (value: unknown): void => {
    if (Array.isArray(value)) return value.forEach(walk);
    if (!isNode(value)) {
      if (typeof value === 'object' && value !== null) Object.values(value).forEach(walk);
      return;
    }
    if (value.type === 'Fragment') {
      let run: Node[] = [];
      const flush = () => {
        const text = pieces(run);
        if (/[a-z]{2}/i.test(text)) out.push(text);
        run = [];
      };
      for (const node of value['nodes'] as Node[]) {
        if (node.type === 'Text' || node.type === 'ExpressionTag') run.push(node);
        else flush();
      }
      flush();
    }
    if (value.type === 'Attribute' && READ.has(String(value['name'])) && Array.isArray(value['value'])) {
      const text = pieces(value['value'] as Node[]);
      if (/[a-z]{2}/i.test(text)) out.push(text);
    }
    Object.entries(value).forEach(([key, child]) => key !== 'parent' && key !== 'css' && walk(child));
  };
  walk(root['fragment']);
  return out;
}

/** Strings of code that read like words, and what is named as such. */
function codeTexts(source: string): string[] {
  const out: string[] = [];
  const root = ts.createSourceFile('x.ts', source, ts.ScriptTarget.Latest, true);
  const nameOf = (node: ts.Node): string => {
    const { parent } = node;
    return ts.isPropertyAssignment(parent) && ts.isIdentifier(parent.name) ? parent.name.text : '';
  };
  const visit = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node)) return;
    if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) {
      const text = plain(node.text);
      if (READ.has(nameOf(node)) ? /[a-z]{2}/i.test(text) : isWords(text)) out.push(text);
    } else if (ts.isTemplateExpression(node)) {
      const text = plain(
        node.head.text + node.templateSpans.map(({ literal }) => `…${literal.text}`).join('')
      );
      if (isWords(text)) out.push(text);
      node.templateSpans.forEach(({ expression }) => visit(expression));
      return;
    }
    ts.forEachChild(node, visit);
  };
  visit(root);
  return out;
}

/** Class names and paths that look like words are left out. */
const NO_TEXT =
  /(^|\s)(flex|grid|min-|max-|text-|border|rounded|px-|py-|stroke-|fill-|gap-|items-|absolute|relative|inline-flex|sr-only|w-|h-)|^\[|^M\d|\$lib|^\.{1,2}\//;

/** All texts under some folders of the sources, in the order of their files; the same text of one file once. */
export function interfaceTexts(root: string, folders: readonly string[]): InterfaceText[] {
  return folders.flatMap((folder) =>
    files(join(root, folder), ['.svelte', '.ts']).flatMap((path) => {
      const source = readFileSync(path, 'utf8');
      const code = path.endsWith('.svelte')
        ? [...source.matchAll(/<script[^>]*>([\s\S]*?)<\/script>/g)].map(([, own]) => own!).join('\n')
        : source;
      const texts = [...(path.endsWith('.svelte') ? templateTexts(source) : []), ...codeTexts(code)];
      return [...new Set(texts)]
        .filter((text) => !NO_TEXT.test(text))
        .map((text) => ({ file: relative(root, path), text }));
    })
  );
}
