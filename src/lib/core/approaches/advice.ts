/**
 * How a choice sounds and how it is used, in a few plain words that differ from choice to choice; and where the scale is better left alone. All of
 * it is read from the facts of a judgement. Source: docs/music-rules.md, Style.
 */
import { firstOf, nth, sure } from '../base/list';
import type { Analysis } from '../harmony/analysis';
import { degreeOf, DEGREES, type Degree } from '../theory/degree';
import { pitchClass, semitonesUp, type NoteName, type PitchClass } from '../theory/note';
import { prettyDegree } from '../theory/typeset';
import { listed } from '../theory/words';
import type { ScaleChoice } from './choice';
import { contextOf, type ChangeContext } from './context';
import { modes } from './modes';

export interface Advice {
  /** "bright and safe", "tense: ♭9 and ♭13". */
  readonly sound: string;
  /** "lean on the 9, D", "E♭ and F♯ want to fall into D and F". */
  readonly use: string;
}

/** Scales from the root of the chord. */
const SOUNDS: Readonly<Record<string, string>> = {
  major: 'bright and settled',
  lydian: 'bright and floating',
  mixolydian: 'bright, with the blue seventh',
  dorian: 'dark but open',
  aeolian: 'dark and plain',
  phrygian: 'dark and heavy',
  locrian: 'dark and restless',
  'melodic minor': 'dark below, bright on top',
  'harmonic minor': 'dark, with a pull upwards',
  'harmonic major': 'bright below, dark on top',
  'dorian b2': 'open, with a sharp edge below',
  'dorian b5': 'dark, its fifth unsteady',
  'dorian #4': 'dark, with a raised fourth',
  'lydian augmented': 'bright and drifting',
  'lydian augmented #2': 'bright and strange',
  'lydian dominant': 'bright, with a raised fourth',
  'lydian #2': 'bright and pointed',
  'lydian b3': 'dark, with a raised fourth',
  'mixolydian b6': 'bright below, dark on top',
  'mixolydian b2': 'bright, with a sharp edge below',
  'locrian natural 2': 'dark, softened by its 9',
  'locrian natural 6': 'dark, lightened by its 13',
  'locrian bb7': 'dark and tight',
  'phrygian b4': 'dark and tense',
  'phrygian dominant': 'fiery, pulling home',
  'ionian augmented': 'bright, its fifth pushed up',
  altered: 'tense throughout',
  'altered bb7': 'tense and tight',
  'whole tone': 'floating, without a centre',
  'half-whole diminished': 'tense and even',
  'whole-half diminished': 'even, without a centre',
  'bebop dominant': 'flowing, with the blue seventh',
  'bebop major': 'flowing and settled',
  'bebop minor': 'flowing and dark',
  'major pentatonic': 'open and singing',
  'minor pentatonic': 'plain and strong',
  'dominant pentatonic': 'open, with the seventh in it',
  'minor six pentatonic': 'plain, with a sweet 6',
  'flat-five pentatonic': 'open and dark',
  'suspended pentatonic': 'open, without a third',
  'augmented pentatonic': 'open, its fifth pushed up',
  'minor blues': 'rough and vocal',
  'major blues': 'sweet and vocal',
  'blended blues': 'rough and sweet at once'
};

const ALTERED: readonly Degree[] = ['b9', '#9', 'b5', '#5', 'b13', '#11'];
const list = (degrees: readonly Degree[]) => listed(degrees.map(prettyDegree));

function soundOf(choice: ScaleChoice, { heard }: ChangeContext): string {
  const { facts, tensions, covers, lacks, notes } = choice;
  const isOwn = pitchClass(facts.root) === heard.rootPc;
  const known = facts.kind === 'scale' && isOwn ? SOUNDS[facts.type] : undefined;
  if (known) return known;
  if (facts.kind === 'guide tones') return 'bare: the two notes that tell the chord';
  const bent = [...covers, ...tensions].filter((tone) => ALTERED.includes(tone));
  if (heard.family === 'dominant' && bent.length) return `tense: ${list(bent.slice(0, 3))}`;
  if (tensions.length) return `${notes.length > 5 ? 'full' : 'open'}: ${list(tensions.slice(0, 3))} on top`;
  if (lacks.length === 0) return isOwn ? 'clear: the chord itself' : 'near the chord';
  return `spare: ${list(covers)} alone`;
}

/** The note of a choice that is a degree on the chord. */
const noteAt = ({ notes, degrees }: ScaleChoice, degree: Degree): NoteName =>
  nth(notes, degrees.indexOf(degree));

/** Tones outside the chord, or altered in it, that lie a semitone beside a tone of the next one, the nearest way, down before up. */
function falls({ notes, degrees, covers }: ScaleChoice, { next }: ChangeContext): [NoteName, NoteName][] {
  const goal = next?.chord;
  if (!goal) return [];
  const toneAt = (pc: PitchClass) => goal.notes[goal.pitchClasses.indexOf(pc)];
  return notes.flatMap((note, i): [NoteName, NoteName][] => {
    const isPlain = covers.includes(nth(degrees, i)) && !ALTERED.includes(nth(degrees, i));
    if (isPlain || goal.pitchClasses.includes(pitchClass(note))) return [];
    const pc = pitchClass(note);
    const to = toneAt((pc + 11) % 12) ?? toneAt((pc + 1) % 12);
    return to === undefined ? [] : [[note, to]];
  });
}

/** Ways in which a choice can be used, the most telling first. */
function usesOf(choice: ScaleChoice, context: ChangeContext): string[] {
  const { tensions, avoid, blue, lacks, softAvoid, facts } = choice;
  const { heard, isLeading } = context;
  const uses: string[] = [];
  const moves = isLeading ? falls(choice, context) : [];
  const bent = moves.filter(([, to], i) => moves.findIndex(([, other]) => other === to) === i).slice(0, 2);
  if (bent.length === 2) {
    const [[a, b], [c, d]] = bent as [[string, string], [string, string]];
    uses.push(`${a} and ${c} want to move into ${b} and ${d}`);
  } else if (bent.length === 1) uses.push(`${firstOf(bent)[0]} wants to move into ${firstOf(bent)[1]}`);
  for (const tone of tensions)
    if (tone !== softAvoid) uses.push(`lean on the ${prettyDegree(tone)}, ${noteAt(choice, tone)}`);
  if (blue.includes('b3') && heard.tones.includes('3'))
    uses.push(
      `slide from ${noteAt(
        choice,
        sure(
          choice.degrees.find((one) => DEGREES[one].semitones === 3),
          'choice.degrees'
        )
      )} up to the 3`
    );
  for (const tone of lacks.filter((one) => ['3', '7'].includes(DEGREES[one].slot)))
    uses.push(`add the ${prettyDegree(tone)} where the chord changes`);
  for (const tone of avoid) uses.push(`pass through the ${prettyDegree(tone)}, ${noteAt(choice, tone)}`);
  for (const tone of choice.covers) uses.push(`rest on the ${prettyDegree(tone)}, ${noteAt(choice, tone)}`);
  uses.push(`begin on ${facts.root}`);
  return uses;
}

/** The advice on the choices of one approach, each other than those before it. */
export function adviceOn(choices: readonly ScaleChoice[], context: ChangeContext): Advice[] {
  const [sounds, uses] = [new Set<string>(), new Set<string>()];
  return choices.map((choice) => {
    const own = soundOf(choice, context);
    const from = degreeOf(semitonesUp(context.heard.rootPc, pitchClass(choice.root)), context.heard.tones);
    const tried = [own, `${own}, from the ${prettyDegree(from)}`];
    const sound = tried.find((one) => !sounds.has(one)) ?? `${own}, as ${choice.over ?? choice.name}`;
    const all = usesOf(choice, context);
    const use = all.find((one) => !uses.has(one)) ?? `${firstOf(all)}; begin on ${choice.root}`;
    sounds.add(sound);
    uses.add(use);
    return { sound, use };
  });
}

/** Beats of a change that is too short for a scale of its own. */
const SHORT = 2;
/** Notes that two seven-note scales share where going over from one to the other is hardly heard. */
const SHARED = 6;
const NUMBERS: Readonly<Record<number, string>> = { 6: 'six', 7: 'all seven' };

/** Why the scale of the change before is better kept over a change; null where a scale of its own says more. */
export function leaveAlone(analysis: Analysis, index: number): string | null {
  const context = contextOf(analysis, index);
  const before = context?.previous && contextOf(analysis, index - 1);
  if (!context || !before) return null;
  if (context.heard.pitchSet === before.heard.pitchSet) return null;
  if (context.change.beats < SHORT) return 'It lasts under two beats: keep the scale of the chord before.';
  const [own, former] = [modes(context)[0], modes(before)[0]];
  if (own && former && own.notes.length === 7 && former.notes.length === 7) {
    const held = new Set(former.notes.map(pitchClass));
    const shared = own.notes.filter((note) => held.has(pitchClass(note))).length;
    if (shared >= SHARED)
      return `It shares ${NUMBERS[shared]} notes with the scale before: stay, and change where you land.`;
  }
  const held = heldGuideTone(before, context);
  return held === null ? null : `The ${held} is held from the chord before to the one after: stay round it.`;
}

/** A guide tone of the chord before that sounds on through this one as a guide tone of the next. */
function heldGuideTone(before: ChangeContext, { heard, next }: ChangeContext): NoteName | null {
  if (!next?.chord) return null;
  const guides = ({
    notes,
    tones
  }: {
    readonly notes: readonly NoteName[];
    readonly tones: readonly Degree[];
  }) => notes.filter((_, i) => ['3', '7'].includes(DEGREES[nth(tones, i)].slot));
  const after = guides(next.chord).map(pitchClass);
  return (
    guides(before.heard).find(
      (note) => heard.pitchClasses.includes(pitchClass(note)) && after.includes(pitchClass(note))
    ) ?? null
  );
}
