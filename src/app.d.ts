import type { Visitor } from '$lib/server/repositories/people';

declare global {
  namespace App {
    interface Locals {
      visitor: Visitor | null;
    }
  }
}

export {};
