import type { InstantText } from '@zesting/core';
import type { Tx } from './database/transaction.js';

type Listener<T> = (tx: Tx, what: T, now: InstantText) => Promise<void>;

/**
 * Something that happened in one feature and that another takes up, in the transaction of its cause: both commit or neither does. Listeners are
 * added when their feature is loaded, and run in that order.
 */
export class Event<T> {
  private readonly listeners = new Set<Listener<T>>();

  add(listener: Listener<T>): void {
    this.listeners.add(listener);
  }

  async tell(tx: Tx, what: T, now: InstantText): Promise<void> {
    for (const listener of this.listeners) await listener(tx, what, now);
  }
}
