/** Notes from MIDI instruments, whichever are plugged in. */
import { WebMidi, type NoteMessageEvent } from 'webmidi';

/** Listens; gives how to stop. Throws where the browser lets no MIDI in. */
export async function listenToMidi(onNote: (midi: number) => void): Promise<() => void> {
  await WebMidi.enable();
  const hear = (event: NoteMessageEvent) => onNote(event.note.number);
  const connect = () => {
    for (const input of WebMidi.inputs) {
      input.removeListener('noteon', hear);
      input.addListener('noteon', hear);
    }
  };
  connect();
  WebMidi.addListener('connected', connect);
  return () => {
    WebMidi.removeListener('connected', connect);
    for (const input of WebMidi.inputs) input.removeListener('noteon', hear);
  };
}
