/** The tests' second reader of MIDI files comes without types. */
declare module 'midi-parser-js' {
  const MidiParser: { parse(bytes: Uint8Array): unknown };
  export default MidiParser;
}
