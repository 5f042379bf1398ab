/** Sound and MIDI files as takes. */
import { NotReadable } from '$lib/core/formats/not-readable';
import { endOf, ticksOf } from '$lib/core/line/model';
import { findClock } from '$lib/core/takes/find-clock';
import { heardParts, LONGEST_SECONDS, plainParts } from '../made-of';
import { frameIn, ownIn, type Room } from './way';

/** A sound or MIDI file that was dropped or chosen. */
export async function readFile(room: Room, file: File): Promise<void> {
  room.notices.problem = '';
  const isMidi = /\.midi?$/i.test(file.name) || file.type.includes('midi');
  await (isMidi ? readMidiFile(room, file) : readSoundFile(room, file));
}

async function readSoundFile(room: Room, file: File): Promise<void> {
  const { work, notices, rehearsal, shelf } = room;
  work.doing = 'The file is read';
  const { mono, readRecording } = await import('$lib/audio/backing');
  const buffer = await readRecording(file).catch(() => null);
  work.doing = '';
  if (!buffer) {
    notices.problem = `“${file.name}” is no sound that this browser reads; try WAV, MP3, OGG or FLAC.`;
    return;
  }
  if (buffer.duration > LONGEST_SECONDS) {
    notices.problem = `“${file.name}” lasts ${Math.round(buffer.duration / 60)} minutes; a take has ${LONGEST_SECONDS / 60} at most. Cut out the part that you want to hear about.`;
    return;
  }
  const samples = mono(buffer);
  const heard = await work.run('The file is listened to', (listener) =>
    listener.listen(samples, buffer.sampleRate, work.onShare())
  );
  if (!heard) return;
  const { tempo, start } = findClock(heard.notes, rehearsal.tempo.sounding);
  const data = ownIn(room, { ...frameIn(room, 'file', tempo, start), ...heardParts(heard) });
  await shelf.keep({ name: nameOf(file), seconds: buffer.duration, data }, samples);
}

async function readMidiFile(room: Room, file: File): Promise<void> {
  const { readMidi } = await import('$lib/core/formats/midi/read');
  try {
    const { lines, melody } = readMidi(new Uint8Array(await file.arrayBuffer()));
    const voices = [...lines.map(({ notes }) => notes), ...(melody ? [melody] : [])];
    const [voice] = voices.sort((a, b) => b.length - a.length);
    if (!voice) throw new NotReadable('There is no line in this MIDI file: one voice is needed.');
    const tempo = room.rehearsal.tempo.sounding;
    const seconds = (ticks: number) => ((ticks / ticksOf(1)) * 60) / tempo;
    const notes = voice.map(({ start, length, midi }) => ({
      at: seconds(start),
      seconds: seconds(length),
      midi
    }));
    await room.shelf.keep({
      name: nameOf(file),
      seconds: seconds(Math.max(...voice.map(endOf))),
      data: { ...frameIn(room, 'midi file', tempo, 0), ...plainParts(notes) }
    });
  } catch (error) {
    room.notices.problem = error instanceof NotReadable ? error.message : `“${file.name}” is no MIDI file.`;
  }
}

const nameOf = (file: File) => file.name.replace(/\.[^.]+$/, '').slice(0, 120) || 'A file';
