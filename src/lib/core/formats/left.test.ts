/** Nothing goes in silence: what a file says is in the chart, in a line, or among what was left out. */
import fc from 'fast-check';
import { writeMidi, type MidiEvent } from 'midi-file';
import { describe, expect, it } from 'vitest';
import { readMidi } from './midi/read';
import { readMusicXml } from './musicxml/read';
import type { ReadPiece } from './piece';
import { importText } from './text/import';

/** All that a player sees of a file. */
const seen = ({ chart, melody, lines, left }: Pick<ReadPiece, 'chart' | 'left'> & Partial<ReadPiece>) =>
  [
    chart ?? '',
    ...left.map(({ text, why }) => `${text}: ${why}`),
    ...[melody ?? [], ...(lines ?? []).map(({ notes }) => notes)].map((notes) => `notes ${notes.length}`)
  ].join('\n');

const pitch = '<pitch><step>G</step><octave>4</octave></pitch><duration>1</duration>';
/** Things that stand in a bar of MusicXML, and what is to be seen of each. */
const XML_THINGS = {
  chord: ['<harmony><root><root-step>F</root-step></root><kind>minor-seventh</kind></harmony>', 'Fm7'],
  strange: [
    '<harmony><root><root-step>F</root-step></root><kind text="zork">other</kind></harmony>',
    'Fzork'
  ],
  grace: [`<note><grace/><pitch><step>A</step><octave>4</octave></pitch></note>`, 'grace note'],
  drum: ['<note><unpitched/><duration>1</duration></note>', 'drum note'],
  lyric: [`<note>${pitch}<lyric><text>la</text></lyric></note>`, 'lyrics'],
  dynamics: [
    '<direction><direction-type><dynamics><mf/></dynamics></direction-type></direction>',
    'dynamic mark'
  ],
  words: ['<direction><direction-type><words>like fog</words></direction-type></direction>', 'like fog'],
  fermata: [`<note>${pitch}<notations><fermata/></notations></note>`, 'fermata'],
  accent: [`<note>${pitch}<notations><articulations><accent/></articulations></notations></note>`, 'accent'],
  figures: [
    '<figured-bass><figure><figure-number>6</figure-number></figure></figured-bass>',
    'figure of a bass'
  ],
  broken: [
    '<note><pitch><step>H</step><octave>4</octave></pitch><duration>1</duration></note>',
    'unreadable note'
  ],
  repeat: ['<barline location="right"><repeat direction="backward"/></barline>', 'Repeats, endings and jumps']
} as const;
type XmlThing = keyof typeof XML_THINGS;

const TEXT_THINGS = {
  chords: ['| Fm7 | Bb7 |', 'Fm7'],
  lyric: ['the lamps go out along the quay', 'the lamps go out along the quay'],
  comment: ['{comment: twice as slow}', 'twice as slow'],
  unknown: ['{colour: teal}', 'teal'],
  strange: ['| Fm7 | Zork | Bb7 |', 'Zork']
} as const;
type TextThing = keyof typeof TEXT_THINGS;

describe('what a file says is to be seen, or told', () => {
  it('in MusicXML', () => {
    const any = fc.uniqueArray(fc.constantFrom(...(Object.keys(XML_THINGS) as XmlThing[])), { minLength: 1 });
    fc.assert(
      fc.property(any, (things) => {
        const inside = things.map((thing) => XML_THINGS[thing][0]).join('');
        const whole = seen(
          readMusicXml(
            `<score-partwise><part-list><score-part id="a"><part-name>Horn</part-name></score-part></part-list><part id="a"><measure number="1"><attributes><divisions>1</divisions></attributes><note>${pitch}</note>${inside}</measure></part></score-partwise>`
          )
        );
        for (const thing of things) expect(whole).toContain(XML_THINGS[thing][1]);
      })
    );
  });

  it('in pasted text', () => {
    const any = fc.uniqueArray(fc.constantFrom(...(Object.keys(TEXT_THINGS) as TextThing[])), {
      minLength: 1
    });
    fc.assert(
      fc.property(any, (things) => {
        const text = ['| C | G7 |', ...things.map((thing) => TEXT_THINGS[thing][0])].join('\n');
        const whole = seen(importText(text));
        for (const thing of things) expect(whole).toContain(TEXT_THINGS[thing][1]);
      })
    );
  });

  it('in MIDI', () => {
    const things = {
      lyrics: [{ type: 'lyrics', text: 'la', meta: true }, 'lyrics'],
      text: [{ type: 'text', text: 'for the night watch', meta: true }, 'for the night watch'],
      copyright: [{ type: 'copyrightNotice', text: 'nobody', meta: true }, 'nobody'],
      marker: [{ type: 'marker', text: 'Chorus', meta: true }, 'no chord symbol'],
      chord: [{ type: 'marker', text: 'Fm7', meta: true }, 'Fm7'],
      drum: [{ type: 'noteOn', channel: 9, noteNumber: 38, velocity: 90 }, 'drums']
    } as const;
    const any = fc.uniqueArray(fc.constantFrom(...(Object.keys(things) as (keyof typeof things)[])), {
      minLength: 1
    });
    fc.assert(
      fc.property(any, (names) => {
        const events = [
          { deltaTime: 0, type: 'noteOn', channel: 0, noteNumber: 65, velocity: 80 },
          ...names.map((name) => ({ deltaTime: 0, ...things[name][0] })),
          { deltaTime: 1920, type: 'noteOff', channel: 0, noteNumber: 65, velocity: 0 },
          { deltaTime: 0, meta: true, type: 'endOfTrack' }
        ] as MidiEvent[];
        const file = writeMidi({ header: { format: 0, numTracks: 1, ticksPerBeat: 480 }, tracks: [events] });
        const whole = seen(readMidi(Uint8Array.from(file)));
        for (const name of names) expect(whole).toContain(things[name][1]);
      })
    );
  });
});
