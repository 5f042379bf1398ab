/** A round of practice as a file: MIDI with a track for each part, or sound. */
import { midiFile } from '$lib/core/formats/midi/band';
import { slowedBeat } from '$lib/core/practice/ending';
import { PARTS } from '$lib/core/practice/events';
import type { Piece, Work } from './format';

export function midiOf({ round, title, tempo, meter, key, feel, mix, chordSound }: Piece): Blob {
  const bytes = midiFile({
    title,
    tempo,
    meter,
    key,
    bars: round.excerpt.bars,
    kit: feel.kit,
    chordsOn: chordSound,
    // What is muted is in the file all the same, but for the click: a track that nobody asked for.
    // A file begins with its first bar.
    events: round.events.filter(({ part, start }) => start >= 0 && (part !== 'click' || !mix.click.isMuted)),
    tempos: round.slowing.map(({ start, part }) => ({ start, tempo: tempo * part })),
    markers: round.excerpt.changes.map(({ start, source }) => ({ start, name: source.symbol })),
    beats: round.excerpt.beats
  });
  return new Blob([bytes], { type: 'audio/midi' });
}

export async function wavOf(piece: Piece, work?: Work): Promise<Blob> {
  const { round, tempo, chordSound, mix } = piece;
  const [{ render }, { wavFile }] = await Promise.all([
    import('$lib/audio/player'),
    import('$lib/audio/wav')
  ]);
  const at = (beat: number) => slowedBeat(round.slowing, beat);
  const { samples, rate } = await render({
    events: round.events
      .filter(({ start }) => start >= 0)
      .map((event) => ({
        ...event,
        start: at(event.start),
        beats: at(event.start + event.beats) - at(event.start)
      })),
    beats: at(round.excerpt.beats),
    tempo,
    chordSound,
    mix: new Map(PARTS.map((part) => [part, [mix[part].decibels, mix[part].isMuted] as const])),
    ...work
  });
  return new Blob([wavFile(samples, rate)], { type: 'audio/wav' });
}
