import { Injectable } from '@nestjs/common';
import { Temporal } from 'temporal-polyfill';
import type { InstantText } from '@zesting/core';

/** The server's clock. Tests and the demo loader set it; from then on it runs on from there. */
@Injectable()
export class Clock {
  private offsetMs = 0;

  now(): InstantText {
    return Temporal.Instant.fromEpochMilliseconds(Temporal.Now.instant().epochMilliseconds + this.offsetMs).toString();
  }

  /** Sets the clock to an instant, or back to the machine's time. */
  set(instant: InstantText | null): void {
    this.offsetMs = instant === null ? 0 : Temporal.Instant.from(instant).epochMilliseconds - Temporal.Now.instant().epochMilliseconds;
  }
}
