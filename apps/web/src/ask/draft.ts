import type { UploadShape } from '@zesting/contract';
import type { Answers } from '@zesting/core';

/** What was typed so far: kept in the browser until it is sent, so that a reload or a lost connection loses nothing. */
export interface AskDraft {
  readonly name: string;
  readonly email: string;
  readonly answers: Answers;
  /** uploads by id, so that their names can be shown again */
  readonly files: Readonly<Record<string, UploadShape>>;
  /** the version of the form that it was begun with */
  readonly version?: number;
  /** the key of the last try and what it sent: the same content is sent under the same key */
  readonly sent?: { readonly key: string; readonly body: string };
}

export const EMPTY_DRAFT: AskDraft = { name: '', email: '', answers: {}, files: {} };
const storageKey = (linkId: string): string => `zesting-ask-${linkId}`;

export function readDraft(linkId: string): AskDraft {
  try {
    const stored: unknown = JSON.parse(localStorage.getItem(storageKey(linkId)) ?? 'null');
    return typeof stored === 'object' && stored !== null && 'answers' in stored ? { ...EMPTY_DRAFT, ...(stored as AskDraft) } : EMPTY_DRAFT; // written below
  } catch {
    return EMPTY_DRAFT;
  }
}

export function keepDraft(linkId: string, draft: AskDraft): void {
  try {
    localStorage.setItem(storageKey(linkId), JSON.stringify(draft));
  } catch {
    // storage is full or forbidden: the page still works, only a reload would lose the text
  }
}

export const dropDraft = (linkId: string): void => localStorage.removeItem(storageKey(linkId));

/** The body to send, and the key under which: the same key as before when nothing changed since the last try. */
export function sendingOf(draft: AskDraft): { body: string; key: string } {
  const body = JSON.stringify({ name: draft.name.trim(), email: draft.email.trim(), answers: draft.answers });
  return draft.sent?.body === body ? draft.sent : { body, key: crypto.randomUUID() };
}
