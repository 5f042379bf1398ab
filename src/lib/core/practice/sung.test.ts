import { describe, expect, it } from 'vitest';
import { noteOf, ticksOf, type LineNote } from '../line/model';
import { sungEvents } from './sung';

const note = (at: number, beats: number, midi: number, how: Partial<LineNote> = {}): LineNote => ({
  ...noteOf(ticksOf(at), ticksOf(beats), midi),
  ...how
});
const sung = (...notes: LineNote[]) =>
  sungEvents(
    notes,
    notes.map(({ start, length }) => ({ start: start / 960, beats: length / 960 }))
  );

describe('a line as it is played', () => {
  it('strikes a tied note once and holds it on', () => {
    const events = sung(note(0, 1, 60), note(1, 2, 60, { tie: true }), note(3, 1, 62));
    expect(events.map(({ start, beats, midi }) => [start, beats, midi])).toEqual([
      [0, 3, 60],
      [3, 1, 62]
    ]);
  });

  it('lets a bend rise from where it is fretted and a slide from the note before', () => {
    const [bend, plain, slide] = sung(
      note(0, 1, 62, { bend: { from: 60 } }),
      note(1, 1, 64),
      note(2, 1, 67, { slide: true })
    );
    expect(bend!.glide).toEqual({ from: 60, beats: 0.4 });
    expect(plain!.glide).toBeUndefined();
    expect(slide!.glide).toEqual({ from: 64, beats: 0.15 });
    // However long the note, a bend is there within half a beat.
    expect(sung(note(0, 8, 62, { bend: { from: 60 } }))[0]!.glide!.beats).toBe(0.5);
  });

  it('shakes, curls, slurs and touches as it is written', () => {
    const [shaken, curled, slurred, touched] = sung(
      note(0, 2, 62, { vibrato: true }),
      note(2, 1, 63, { bend: { from: 63, cents: 40 } }),
      note(3, 1, 65, { slur: true }),
      note(4, 1, 65, { ghost: true })
    );
    expect(shaken).toMatchObject({ vibrato: 22 });
    expect(curled).toMatchObject({ midi: 63, curl: 40 });
    expect(curled!.glide).toBeUndefined();
    expect(slurred!.isSlurred).toBe(true);
    expect(slurred!.velocity).toBeLessThan(shaken!.velocity);
    expect(touched).toMatchObject({ isMuted: true, beats: 0.2 });
  });

  it('lets a bend down again to where it is released', () => {
    const [bend] = sung(note(0, 2, 62, { bend: { from: 60 }, release: { to: 60 } }));
    expect(bend!.glide).toEqual({ from: 60, beats: 0.5, backTo: 60 });
  });

  it('only touches a ghost note', () => {
    const [plain, ghost] = sung(note(0, 1, 62), note(1, 1, 62, { ghost: true }));
    expect(ghost!.velocity).toBeLessThan(plain!.velocity / 2);
  });

  it('lets landings stand out, and both notes of a double stop sound', () => {
    const events = sung(
      note(0, 1, 60, { purpose: 'target' }),
      note(0, 1, 64, { purpose: 'target' }),
      note(1, 1, 62)
    );
    expect(events.map(({ midi }) => midi)).toEqual([60, 64, 62]);
    expect(events[0]!.velocity).toBeGreaterThan(events[2]!.velocity);
  });
});
