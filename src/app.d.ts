declare namespace App {
  interface PageState {
    /** Where the player was at this step of the browser's history. */
    place?: import('$lib/state/address').Place;
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
