<!-- What is done to bars, to the form and to chords, in three menus; what has to be asked for is asked in a line. -->
<script lang="ts">
  import { tick } from 'svelte';
  import { prettySymbol } from '$lib/core/theory/typeset';
  import { barRanges } from '$lib/core/theory/words';
  import type { BarEdits } from '$lib/state/writing/bar-edits.svelte';
  import type { FormEdits } from '$lib/state/writing/form-edits';
  import type { Writing } from '$lib/state/writing/writing.svelte';
  import Button from '../../kit/Button.svelte';
  import Menu, { type MenuItem } from '../../kit/Menu.svelte';
  import { METERS, readMeterChoice } from './choices';
  import { QUESTIONS, type Question } from './questions';

  interface Props {
    writing: Writing;
    bars: BarEdits;
    form: FormEdits;
    /** Makes a chart of its own from some bars. */
    onalone: (from: number, to: number) => void;
    ondone: () => void;
  }
  let { writing, bars, form, onalone, ondone }: Props = $props();

  let asked: Question | null = $state(null);
  let answer = $state('');
  let field: HTMLElement | undefined = $state();
  const selected = $derived(writing.selection);
  const where = $derived(
    barRanges(Array.from({ length: selected.to - selected.from + 1 }, (_, i) => selected.from + i + 1))
  );
  const hasBars = $derived(writing.bars.length > 0);

  /** What stands there now is the answer that is offered. */
  const standing = (question: Question): string => {
    const { bar } = writing;
    if (!bar) return '';
    if (question === 'section') return bar.opensSection ? bar.section : '';
    if (question === 'note') return bar.notes.join(' · ');
    return question === 'meter' ? `${bar.meter.beats}/${bar.meter.unit}` : '';
  };
  export async function ask(question: Question) {
    asked = question;
    answer = standing(question);
    await tick();
    field?.focus();
    if (field instanceof HTMLInputElement) field.select();
  }
  function take() {
    const from = writing.chord?.symbol;
    if (asked === 'section') form.nameSection(answer);
    else if (asked === 'note') form.setNotes([answer]);
    else if (asked === 'replace' && from) bars.replace(from, answer);
    else if (asked === 'meter') form.setMeter(readMeterChoice(answer));
    asked = null;
    ondone();
  }
  /** The menu gives the focus to what it opened, else back to the bars. */
  const closed = () => {
    if (asked) field?.focus();
    else ondone();
  };

  const RIGHT = [
    'To Coda',
    'Fine',
    'D.C.',
    'D.C. al Fine',
    'D.C. al Coda',
    'D.S.',
    'D.S. al Fine',
    'D.S. al Coda'
  ];
  const STEPS = [
    [1, 'a semitone up'],
    [-1, 'a semitone down'],
    [2, 'a tone up'],
    [-2, 'a tone down'],
    [5, 'a fourth up'],
    [-5, 'a fourth down']
  ] as const;

  const barItems = $derived<MenuItem[][]>([
    [
      { name: 'Insert a bar before', run: () => bars.insert('before') },
      { name: 'Insert a bar after', keys: 'Shift Enter', run: () => bars.insert('after') },
      { name: 'Insert four bars after', run: () => bars.insert('after', 4) },
      {
        name: 'A further chord in this bar',
        keys: 'Space',
        disabled: !writing.chord,
        run: () => writing.split()
      }
    ],
    [
      { name: 'Copy', keys: 'Ctrl C', run: () => bars.copy() },
      { name: 'Cut', keys: 'Ctrl X', run: () => bars.cut() },
      { name: 'Paste', keys: 'Ctrl V', disabled: bars.clip.length === 0, run: () => bars.paste() },
      { name: 'Duplicate', keys: 'Ctrl D', run: () => bars.duplicate() },
      { name: 'Select all', keys: 'Ctrl A', run: () => writing.selectAll() }
    ],
    [
      { name: 'Move left', keys: 'Alt ←', run: () => bars.nudge(-1) },
      { name: 'Move right', keys: 'Alt →', run: () => bars.nudge(1) }
    ],
    [
      { name: 'Note …', keys: 'O', run: () => void ask('note') },
      {
        name: 'Another meter …',
        keys: 'M',
        run: () => void ask('meter')
      }
    ],
    [
      { name: 'Clear', run: () => bars.clear() },
      { name: 'Delete bars', hint: where, run: () => bars.deleteBars() }
    ]
  ]);
  const ending = (rounds: readonly number[]) => () => form.setEnding(rounds);
  const formItems = $derived<MenuItem[][]>([
    [
      {
        name: 'Section …',
        hint: writing.bar?.section ? `now ${writing.bar.section}` : 'none yet',
        keys: 'S',
        run: () => void ask('section')
      },
      { name: 'Join to the section before', run: () => form.joinSection() },
      { name: 'Section earlier', run: () => form.moveSection(-1) },
      { name: 'Section later', run: () => form.moveSection(1) },
      { name: 'Section once more', run: () => form.duplicateSection() },
      {
        name: 'Practise the section alone',
        hint: 'As a chart of its own',
        run: () => onalone(form.section.from, form.section.to)
      }
    ],
    [
      {
        name: form.isRepeated ? 'No repeat' : 'Repeat',
        hint: where,
        keys: 'R',
        run: () => form.toggleRepeat()
      },
      { name: 'First ending', keys: '[', run: ending([1]) },
      { name: 'Second ending', keys: ']', run: ending([2]) },
      { name: 'No ending', run: ending([]) }
    ]
  ]);
  const signItems = $derived<MenuItem[][]>([
    [
      { name: 'Segno', run: () => form.setWord('left', 'Segno') },
      { name: 'Coda', run: () => form.setWord('left', 'Coda') },
      ...RIGHT.map((word) => ({ name: word, run: () => form.setWord('right', word) })),
      {
        name: 'No sign here',
        run: () => {
          form.setWord('left', '');
          form.setWord('right', '');
        }
      }
    ]
  ]);
  const chordItems = $derived<MenuItem[][]>([
    STEPS.map(([semitones, name]) => ({
      name: `Transpose ${name}`,
      hint: semitones === 1 ? where : undefined,
      run: () => bars.transpose(semitones)
    })),
    [
      {
        name: 'Replace …',
        disabled: !writing.chord,
        hint: writing.chord ? `every ${prettySymbol(writing.chord.symbol)} selected` : undefined,
        run: () => void ask('replace')
      }
    ],
    [
      { name: 'To triads', run: () => bars.simplify('triads') },
      { name: 'To seventh chords', run: () => bars.simplify('sevenths') }
    ]
  ]);
</script>

<div class="flex flex-wrap items-center gap-1.5" role="group" aria-label="Bars, form, chords">
  {#if hasBars}
    <Menu label="Bar" hint="Insert, copy, move, delete, note, meter" groups={barItems} onclosed={closed} />
    <Menu label="Form" hint="Sections, repeats, endings" groups={formItems} onclosed={closed} />
    <Menu label="Signs" hint="Segno, coda, fine, D.C., D.S." groups={signItems} onclosed={closed} />
    <Menu
      label="Chords"
      hint="Transpose, replace, simplify what is selected"
      groups={chordItems}
      onclosed={closed}
    />
  {/if}
  {#if asked}
    <form
      class="flex flex-wrap items-center gap-1.5"
      data-asked={asked}
      onsubmit={(event) => {
        event.preventDefault();
        take();
      }}
    >
      <label class="text-sm" for="bar-answer">{QUESTIONS[asked]}</label>
      {#if asked === 'meter'}
        <select
          id="bar-answer"
          class="min-h-8.5 rounded-md border border-edge bg-paper px-2 pointer-coarse:min-h-11"
          bind:this={field}
          bind:value={answer}
        >
          {#each METERS as meter (meter)}<option>{meter}</option>{/each}
        </select>
      {:else}
        <input
          id="bar-answer"
          class="min-h-8.5 w-44 rounded-md border border-edge bg-paper px-2 pointer-coarse:min-h-11"
          autocomplete="off"
          maxlength="200"
          bind:this={field}
          bind:value={answer}
          onkeydown={(event) => {
            if (event.key !== 'Escape') return;
            event.preventDefault();
            event.stopPropagation();
            asked = null;
            ondone();
          }}
        />
      {/if}
      <Button tone="strong" type="submit">OK</Button>
    </form>
  {:else if writing.hasSelection}
    <span class="text-sm text-soft" data-selected-bars>{where} selected</span>
  {/if}
</div>
