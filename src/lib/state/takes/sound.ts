/** The sound of the opened take: as it was kept, or made again where the simulated player played it. */
import { beatsOf } from '$lib/core/line/model';
import { secondOf } from '$lib/core/takes/align';
import { soundPath } from './client';
import { heardParts, swungBeats } from './made-of';
import { RATE } from './shelf.svelte';
import { ownIn, type Room } from './ways/way';

export interface Sound {
  readonly samples: Float32Array<ArrayBuffer>;
  readonly rate: number;
}

/** How loud Corvel is beside the player in a replay, 0 to 1. */
const CALL_LOUDNESS = 0.4;

/** Null where no sound is kept, or where making it was stopped; told where it cannot be had. */
export async function soundOf({ shelf, work, notices }: Room): Promise<Sound | null> {
  const take = shelf.opened;
  if (!take?.data) return null;
  const { player } = take.data;
  if (player) {
    const samples = await work.run('Its sound is made', (listener) =>
      listener.sound(player.strokes, player.tone, player.effect)
    );
    return samples && { samples: samples as Float32Array<ArrayBuffer>, rate: RATE };
  }
  if (take.bytes === 0) return null;
  const { readWav } = await import('$lib/core/formats/wav/read');
  let sound: Sound | null = null;
  await notices.attempt(async () => {
    const response = await fetch(soundPath(shelf.chart, take.id)).catch(() => null);
    if (!response?.ok)
      throw new Error('The sound of this take could not be loaded; the server does not answer.');
    sound = readWav(new Uint8Array(await response.arrayBuffer()), Infinity);
  });
  return sound;
}

/** The same; where bars were traded, with what Corvel had played on the same string as the simulated player. */
export async function soundWithCall(room: Room): Promise<Sound | null> {
  const sound = await soundOf(room);
  const data = room.shelf.opened?.data;
  if (!sound || !data?.trade?.call.length) return sound;
  const beatAt = swungBeats(room.workspace.sheet, room.rehearsal.rounds.feel, data.tempo);
  const strokes = data.trade.call.map(({ start, length, midi }) => ({
    at: secondOf(data, beatAt(beatsOf(start))),
    seconds: (beatsOf(length) * 60) / data.tempo,
    midi,
    loudness: CALL_LOUDNESS
  }));
  const call = await room.work.run('What Corvel played is made', (listener) =>
    listener.sound(
      strokes.filter(({ at }) => at >= 0),
      'dark'
    )
  );
  if (!call) return null;
  const { samples, rate } = sound;
  // Both are at their own rates; the nearest sample is near enough for what is only heard along.
  const both = samples.map((sample, i) => sample + (call[Math.round((i * RATE) / rate)] ?? 0));
  return { samples: both, rate };
}

/** Listens to the sound of the opened take again: of one that was torn off, for the first time. */
export async function listenAgain(room: Room): Promise<void> {
  const { shelf, work } = room;
  const take = shelf.opened;
  const sound = take && (await soundOf(room));
  if (!take || !sound) return;
  const heard = await work.run('The take is listened to', (listener) =>
    listener.listen(sound.samples, sound.rate, work.onShare())
  );
  if (heard)
    await shelf.hear(take.id, sound.samples.length / sound.rate, (data) =>
      ownIn(room, { ...data, ...heardParts(heard) })
    );
}
