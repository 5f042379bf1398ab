/** Notes from MIDI instruments, whichever are plugged in. */
import { WebMidi, type NoteMessageEvent } from 'webmidi';

/** A key or string that was struck, or let go, at a time of the page's own clock in milliseconds. */
export interface MidiStroke {
  readonly midi: number;
  readonly at: number;
  /** How hard it was struck, 0 to 1. */
  readonly velocity: number;
}

/** Listens; gives how to stop. Throws where the browser lets no MIDI in. */
export async function listenToMidi(
  onNote: (stroke: MidiStroke) => void,
  onRelease?: (stroke: MidiStroke) => void
): Promise<() => void> {
  await WebMidi.enable();
  const strokeOf = ({ note, timestamp }: NoteMessageEvent): MidiStroke => ({
    midi: note.number,
    at: timestamp,
    velocity: note.attack
  });
  const hear = (event: NoteMessageEvent) => onNote(strokeOf(event));
  const leave = (event: NoteMessageEvent) => onRelease?.(strokeOf(event));
  const disconnect = () => {
    for (const input of WebMidi.inputs) {
      input.removeListener('noteon', hear);
      input.removeListener('noteoff', leave);
    }
  };
  const connect = () => {
    disconnect();
    for (const input of WebMidi.inputs) {
      input.addListener('noteon', hear);
      input.addListener('noteoff', leave);
    }
  };
  connect();
  WebMidi.addListener('connected', connect);
  return () => {
    WebMidi.removeListener('connected', connect);
    disconnect();
  };
}

/** Instruments that are plugged in now. */
export const midiInputs = (): number => WebMidi.inputs.length;
