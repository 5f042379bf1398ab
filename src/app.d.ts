import type { Settings } from '$lib/api/settings';
import type { Database } from '$lib/server/database';

declare global {
  namespace App {
    interface Locals {
      db: Database;
      settings: Settings;
    }
  }
}

export {};
