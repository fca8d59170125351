import { Inject, Injectable } from '@nestjs/common';
import { Temporal } from 'temporal-polyfill';
import type { InstantText } from '@zesting/core';
import { CONFIG, type Config } from '../config/config.js';

/** The server's clock, the only one that says what time it is. It begins at `ZESTING_NOW`; tests and the demo loader set it; from then on it runs on from there. */
@Injectable()
export class Clock {
  private offsetMs = 0;

  constructor(@Inject(CONFIG) private readonly config: Pick<Config, 'now'>) {
    this.set(null);
  }

  now(): InstantText {
    return Temporal.Instant.fromEpochMilliseconds(Temporal.Now.instant().epochMilliseconds + this.offsetMs).toString();
  }

  /** Sets the clock to an instant; null: back to where it began, `ZESTING_NOW` or the machine's time. */
  set(instant: InstantText | null): void {
    const wanted = instant ?? this.config.now;
    this.offsetMs = wanted === null ? 0 : Temporal.Instant.from(wanted).epochMilliseconds - Temporal.Now.instant().epochMilliseconds;
  }
}
