// Plain words on the terminal.

export function say(text) {
  process.stdout.write(`${text}\n`);
}

/** Ends the program with one clear sentence. */
export function stop(sentence) {
  process.stderr.write(`\n${sentence}\n`);
  process.exit(1);
}
