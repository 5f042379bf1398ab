declare namespace App {
  interface PageState {
    /** Where the player was at this step of the browser's history. */
    place?: import('$lib/state/address').Place;
  }
  /** What the server that listens knows of a request; absent in the development server. */
  interface Platform {
    readonly req: import('node:http').IncomingMessage;
  }
  interface Locals {
    settings: import('$lib/api/settings').Settings;
  }
}

declare module '*?thread' {
  /** The code of a worker thread. */
  const source: string;
  export default source;
}
