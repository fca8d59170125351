import { dayIn, type Day, type InstantText } from '@zesting/core';

/** A day at most one off from anybody's today: for bounds of what is looked at, never for a day that somebody works by. */
// eslint-disable-next-line no-restricted-syntax -- the one place for it
export const dayNear = (now: InstantText): Day => dayIn(now, 'UTC');
