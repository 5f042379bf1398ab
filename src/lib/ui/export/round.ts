/** A round of practice as a file: MIDI with a track for each part, or sound. */
import { midiFile } from '$lib/core/formats/midi';
import { PARTS } from '$lib/core/practice/events';
import type { Piece } from './format';

export function midiOf({ round, title, tempo, meter, key, feel, mix }: Piece): Blob {
  const bytes = midiFile({
    title,
    tempo,
    meter,
    key,
    bars: round.excerpt.bars,
    kit: feel.kit,
    // What is muted is in the file all the same, but for the click: a track that nobody asked for.
    events: round.events.filter(({ part }) => part !== 'click' || !mix.click.isMuted),
    markers: round.excerpt.changes.map(({ start, source }) => ({ start, name: source.symbol })),
    beats: round.excerpt.beats
  });
  return new Blob([bytes], { type: 'audio/midi' });
}

export async function wavOf({ round, tempo, mix }: Piece): Promise<Blob> {
  const [{ render }, { wavFile }] = await Promise.all([
    import('$lib/audio/player'),
    import('$lib/audio/wav')
  ]);
  const seconds = (round.excerpt.beats * 60) / tempo;
  const volumes = new Map(PARTS.map((part) => [part, [mix[part].decibels, mix[part].isMuted] as const]));
  const samples = await render(round.events, tempo, seconds, volumes);
  return new Blob([wavFile(samples, Math.round(samples.length / seconds))], { type: 'audio/wav' });
}
