import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';
import { interfaceTexts } from '$lib/testing/texts';

const SOURCES = fileURLToPath(new URL('../..', import.meta.url));
const texts = interfaceTexts(SOURCES, [
  'routes',
  'lib/ui',
  'lib/state',
  'lib/api',
  'lib/core',
  'lib/server',
  'lib/audio'
]);

/** Phrases that players stumbled over, and what is said instead. */
const NOT_SAID: readonly (readonly [RegExp, string])[] = [
  [/between strokes|\bparted\b/i, 'separated by'],
  [/\bbring (in|back|files|these|an?)\b|brought in/i, 'import, restore'],
  [/everything is understood/i, 'All chords recognised'],
  [/copies of the songbook/i, 'Backups'],
  [/\bput(s|ting)? (it |this |them )?away\b/i, 'archive, hide, stop'],
  [/\blet (it |this )?go\b/i, 'Reset, remove'],
  [/hold it against/i, 'Compare'],
  [/what a target costs/i, 'Penalties'],
  [/as for all/i, 'Same as the rules'],
  [/outlined with/i, 'Modes on 17 of 17 chords'],
  [/round this grip/i, 'around'],
  [/without a stop/i, 'Continuous'],
  [/carry it on/i, 'Repeat'],
  [/\bmend it\b/i, 'Fix'],
  [/\bput (it |them )?in\b/i, 'Insert'],
  [/\bof MIDI\b/i, 'MIDI latency'],
  [/\bseed\b/i, 'Variation'],
  [/in the mean\b/i, 'on average'],
  [/lets? no MIDI/i, 'can’t use MIDI instruments'],
  [
    /what I practise|for a date\b|a round of two minutes$|leave out\b/i,
    'Exercises, Set lists, Two-minute round, Skip'
  ],
  [/rests belong/i, 'Take breaks'],
  [/\bstumbled\b/i, 'Missed'],
  [/which chord does the line tell/i, 'outline'],
  [/\bcannot be had\b|\bcould not be had\b|\bcan be had\b/i, 'is not possible, could not be loaded'],
  [/\bis gone\b/i, 'was deleted']
];
/** Ids of routes and levels are what they are: nobody reads them. */
const IDS = new Set(['bring back', 'without a stop']);

describe('the words of the interface', () => {
  it('are gathered from tags, attributes and code', () => {
    const of = (file: string) => texts.filter((one) => one.file === file).map(({ text }) => text);
    expect(of('lib/ui/stand/StandFoot.svelte')).toEqual(
      expect.arrayContaining(['clean…', 'lost', 'The last round was clean (C)', 'Next: …'])
    );
    expect(of('lib/core/theory/chord-reader.ts').length).toBeGreaterThan(0);
    expect(texts.length).toBeGreaterThan(2000);
  });

  it.each(NOT_SAID)('never say %s', (phrase) => {
    expect(texts.filter(({ text }) => phrase.test(text) && !IDS.has(text))).toEqual([]);
  });

  it('are printed as one list, to be read at a go', ({ skip }) => {
    skip(process.env['CORVEL_TEXTS'] === undefined, 'npm run texts prints them');
    let file = '';
    const lines = texts.flatMap((one) => {
      const head = one.file === file ? [] : ['', (file = one.file)];
      return [...head, `  ${one.text}`];
    });
    process.stdout.write(`${lines.join('\n')}\n`);
  });
});
