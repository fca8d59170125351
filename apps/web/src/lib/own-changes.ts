/**
 * What this window has changed itself: the lines of the record that answers to its writes named. Live updates tell of them as well; what is on
 * the screen was asked anew when the write was done, and is not asked for again.
 */
const KEPT = 500;
/** A write that takes longer, as that of a large file, keeps nobody from what others changed. */
const PATIENCE_MS = 1_000;
const own = new Set<string>();
const underWay = new Set<Promise<unknown>>();
/** whether something was written since what is on the screen was last asked for */
let isAhead = false;

/** Follows a write to its end, and remembers what its answer says that it wrote. */
export async function followWrite(write: Promise<Response>): Promise<Response> {
  underWay.add(write);
  try {
    const response = await write;
    const lines = response.headers.get('Zesting-Wrote')?.split(' ') ?? [];
    for (const line of lines) own.add(line);
    for (const line of [...own].slice(0, Math.max(0, own.size - KEPT))) own.delete(line);
    if (lines.length > 0) isAhead = true;
    return response;
  } finally {
    underWay.delete(write);
  }
}

/** What is on the screen is asked for from now on. */
export const noteAsked = (): void => void (isAhead = false);

/**
 * Whether live updates told of nothing but what this window wrote and has asked for since. Waits for writes that are under way: their answers
 * say what is theirs.
 * @param lines of the record; null where more changed than they tell
 */
export async function isKnownAlready(lines: readonly string[] | null): Promise<boolean> {
  if (lines === null) return false;
  const isOwn = () => lines.every((line) => own.has(line));
  if (!isOwn() && underWay.size > 0)
    await Promise.race([Promise.allSettled(underWay), new Promise((resolve) => setTimeout(resolve, PATIENCE_MS))]);
  return isOwn() && !isAhead;
}

/** Nothing was ever written: for tests. */
export function forgetWrites(): void {
  own.clear();
  underWay.clear();
  isAhead = false;
}
