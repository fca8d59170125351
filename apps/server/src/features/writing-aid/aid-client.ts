import type { AidAskBody } from '@zesting/contract';

/** What a writing aid is told (docs/writing-aid.md). */
export interface AskedDraft extends AidAskBody {
  readonly title: string;
  readonly format: string;
  /** BCP 47 */
  readonly language: string;
  readonly wordsToUse: readonly string[];
  readonly wordsNever: readonly string[];
}

const TIMEOUT_MS = 60_000;
/** A copy is no longer, in UTF-16 units. */
const LONGEST = 50_000;

/**
 * Asks a writing aid for a draft.
 * @param aid its address, without a slash at its end
 * @returns undefined where it did not answer in time, or not with a text that a copy can hold
 */
export async function askForDraft(aid: string, asked: AskedDraft): Promise<string | undefined> {
  try {
    const response = await fetch(`${aid}/drafts`, {
      method: 'POST',
      redirect: 'manual',
      signal: AbortSignal.timeout(TIMEOUT_MS),
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(asked),
    });
    if (response.status !== 200) return undefined;
    return draftIn(await response.json());
  } catch {
    return undefined;
  }
}

function draftIn(value: unknown): string | undefined {
  if (typeof value !== 'object' || value === null || !('draft' in value)) return undefined;
  const { draft } = value;
  return typeof draft === 'string' && draft.trim() !== '' && draft.length <= LONGEST ? draft.trim() : undefined;
}
