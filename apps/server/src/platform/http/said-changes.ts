import { AsyncLocalStorage } from 'node:async_hooks';
import type { NextFunction, Request, Response } from 'express';
import onHeaders from 'on-headers';

/** The lines of the record that the request under way wrote. */
const written = new AsyncLocalStorage<string[]>();
/** An answer names no more than so many: what changes more is asked for twice. */
const SAID_AT_MOST = 100;

/** Remembers that the request under way, if one is, wrote this line of the record. */
export const noteWritten = (line: string): void => void written.getStore()?.push(line);

/**
 * An answer says in `Zesting-Wrote` which lines of the record its request wrote, so that the window that asked knows them again when it is
 * told of them live. A line that was rolled back may be among them: nobody is ever told of it. Only the team is told live, and only its answers
 * say so: how far the record has come is nobody else's business.
 */
export function sayWritten({ session }: Request, response: Response, next: NextFunction): void {
  const lines: string[] = [];
  onHeaders(response, () => {
    const isOfTeam = session?.personId !== undefined;
    if (isOfTeam && lines.length > 0 && lines.length <= SAID_AT_MOST) response.setHeader('Zesting-Wrote', lines.join(' '));
  });
  written.run(lines, next);
}
