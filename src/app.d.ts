declare namespace App {
  interface Locals {
    db: import('$lib/server/database').Database;
    settings: import('$lib/api/settings').Settings;
  }
}

declare module '*?thread' {
  /** The code of a worker thread. */
  const source: string;
  export default source;
}
