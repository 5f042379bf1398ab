import { describe, expect, it, vi } from 'vitest';
import { readSheet } from '$lib/core/harmony/sheet';
import type { LiveMoment, LiveNote } from '$lib/core/takes/listen/live';
import { Landings } from './landings.svelte';
import type { MeantLanding } from './picture.svelte';
import type { Rehearsal } from './rehearsal.svelte';

interface Handlers {
  onNote: (note: LiveNote) => void;
  onMoment: (moment: LiveMoment) => void;
}
const ear = vi.hoisted(() => ({ handlers: null as unknown }));
vi.mock('../input/ear.svelte', () => ({
  Ear: class {
    input = null;
    constructor(handlers: unknown) {
      ear.handlers = handlers;
    }
    close() {}
  }
}));

const CHANGES = readSheet('{key: Eb}\n| Ebmaj7 | Cm7 | Fm7 | Bb7 |').analysis.changes;
/** The changes of a round of sixteen beats; the third of each is meant: G, E flat, A flat, D. */
const round = (number: number): readonly MeantLanding[] =>
  CHANGES.map(({ chord }, i) => ({
    change: i,
    wanted: [67, 63, 68, 62][i]!,
    place: { start: number * 16 + i * 4, end: number * 16 + i * 4 + 4, chord: chord! }
  }));

function stand() {
  const confirm = vi.fn();
  const rehearsal = {
    transport: { beatAt: (second: number) => second },
    follower: { hearNote: () => undefined, hearLevel: () => undefined },
    workspace: { neck: { raised: 0 } },
    picture: { landings: round(0) as readonly MeantLanding[] | null },
    marks: { confirm }
  };
  const landings = new Landings(rehearsal as unknown as Rehearsal);
  const { onNote, onMoment } = ear.handlers as Handlers;
  const listen = (from: number, to: number, notes: readonly (readonly [number, number])[]) => {
    for (let at = from; at < to; at += 0.25) {
      for (const [start, midi] of notes)
        if (start >= at && start < at + 0.25) onNote({ at: start, midi } as LiveNote);
      const sounds = notes.some(([start]) => start <= at && at < start + 1) ? 1 : null;
      onMoment({ at, sounds, peak: 0.5 } as unknown as LiveMoment);
    }
  };
  return { landings, rehearsal, confirm, listen };
}

describe('what was heard of a round', () => {
  it('is proposed once the next begins: the changes that were missed; the player has only to agree', () => {
    const { landings, rehearsal, confirm, listen } = stand();
    // The second change is passed in silence.
    listen(0, 16, [
      [0, 67],
      [8, 68],
      [12, 62]
    ]);
    expect(landings.heard).toBeNull();
    rehearsal.picture.landings = round(1);
    listen(16, 17, [[16, 67]]);
    expect(landings.heard).toEqual({ missed: [1] });
    landings.confirm();
    expect(confirm).toHaveBeenCalledWith([1]);
    expect(landings.heard).toBeNull();
  });

  it('is clean where every change was met, in any octave', () => {
    const { landings, rehearsal, listen } = stand();
    listen(0, 16, [
      [0, 55],
      [4, 63],
      [8, 68],
      [12, 74]
    ]);
    rehearsal.picture.landings = round(1);
    listen(16, 17, []);
    expect(landings.heard).toEqual({ missed: [] });
  });

  it('is not told of a round that was hardly heard', () => {
    const { landings, rehearsal, listen } = stand();
    listen(12.5, 16, [[13, 62]]);
    rehearsal.picture.landings = round(1);
    listen(16, 17, []);
    expect(landings.heard).toBeNull();
  });
});
