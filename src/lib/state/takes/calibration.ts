/** How late an input comes in: eight clicks are played along with, and the answer is kept for it. */
import { latencyFrom } from '$lib/core/takes/latency';
import type { RecordedBlock } from '$lib/core/takes/model';
import { Ear } from '../input/ear.svelte';
import { joinedBlocks } from './made-of';
import { keepLatency, MIDI_INPUT } from '../input/latency';
import type { MicrophoneWay } from './ways/microphone.svelte';
import type { Room } from './ways/way';

const ASKED = 'Play a short note, or tap the guitar, with each of eight clicks';

/** Measures the microphone that is set. */
export async function calibrateMicrophone(room: Room, way: MicrophoneWay): Promise<void> {
  const { notices, work } = room;
  notices.clear();
  const blocks: RecordedBlock[] = [];
  const microphone = await way.open(
    () => (notices.problem = 'The microphone was disconnected; nothing was measured.'),
    (block) => blocks.push(block)
  );
  if (!microphone) return;
  try {
    const { playClicks } = await import('$lib/audio/input/clicks');
    const clicks = await playClicks();
    work.doing = ASKED;
    await clicks.over;
    clicks.stop();
    await microphone.flush();
    const { rate, name } = microphone;
    const begun = (blocks[0]?.frame ?? 0) / rate;
    const onsets = await work.run('The clicks are looked for', (listener) =>
      listener.onsets(joinedBlocks(blocks), rate)
    );
    if (onsets) {
      const heard = onsets.map((onset) => onset + begun);
      tell(room, name, latencyFrom(clicks.at, heard));
    }
  } catch (error) {
    notices.problem = (error as Error).message;
  } finally {
    work.doing = '';
    microphone.close();
    way.quiet();
  }
}

/** The same for MIDI instruments. */
export async function calibrateMidi(room: Room): Promise<void> {
  const { notices, work } = room;
  notices.clear();
  const strokes: number[] = [];
  const ear = new Ear({ isRaw: true, onNote: ({ at }) => strokes.push(at) });
  await ear.open('midi');
  if (!ear.input) {
    notices.problem = ear.problem;
    return;
  }
  try {
    const { playClicks } = await import('$lib/audio/input/clicks');
    const clicks = await playClicks();
    work.doing = 'Play a short note with each of eight clicks';
    await clicks.over;
    clicks.stop();
    tell(room, MIDI_INPUT, latencyFrom(clicks.at, strokes));
  } catch (error) {
    notices.problem = (error as Error).message;
  } finally {
    work.doing = '';
    ear.close();
  }
}

function tell({ notices }: Room, input: string, measured: ReturnType<typeof latencyFrom>): void {
  if (measured) {
    keepLatency(input, measured);
    notices.said = `This input comes in ${Math.round(1000 * measured.seconds)} ms late, give or take ${Math.round(500 * measured.spread)}. Takes from now on are moved by that.`;
  } else {
    notices.problem =
      'Too few of the clicks were answered in time. Play one short note with each, and nothing between.';
  }
}
