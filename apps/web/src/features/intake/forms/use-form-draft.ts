import { useQueryClient } from '@tanstack/react-query';
import type { FormShape } from '@zesting/contract';
import { formFaults, type FormContent, type FormItem } from '@zesting/core';
import { useCallback, useEffect, useRef, useState } from 'react';
import { formKeys } from '../../../api/forms';
import { ApiProblem, call, wordsOf } from '../../../lib/api';

/** What was changed and can be undone, and what was undone and can be done again. */
export interface History {
  readonly past: readonly FormContent[];
  readonly now: FormContent;
  readonly future: readonly FormContent[];
  /** what the last change was of: the next of the same within a moment joins it */
  readonly of: string | null;
}

/** So many changes can be undone. */
const DEPTH = 100;

export const begun = (now: FormContent): History => ({ past: [], now, future: [], of: null });

/** @param of what is changed, such as `label:title`; typing on joins to one change */
export function changed(history: History, now: FormContent, of: string | null): History {
  if (JSON.stringify(now) === JSON.stringify(history.now)) return history;
  const past = of !== null && of === history.of ? history.past : [...history.past, history.now].slice(-DEPTH);
  return { past, now, future: [], of };
}

export function undone({ past, now, future }: History): History {
  const last = past.at(-1);
  return last ? { past: past.slice(0, -1), now: last, future: [now, ...future], of: null } : { past, now, future, of: null };
}

export function redone({ past, now, future }: History): History {
  const [next, ...rest] = future;
  return next ? { past: [...past, now], now: next, future: rest, of: null } : { past, now, future, of: null };
}

const REST_MS = 600;

/**
 * What is being changed of a form. Each change can be undone, and goes to the server by itself once typing rests; a change by somebody else is
 * noticed, and both are kept until one is chosen.
 */
export function useFormDraft(form: FormShape) {
  const queries = useQueryClient();
  const [history, setHistory] = useState(() => begun(form.content));
  const [saved, setSaved] = useState(() => JSON.stringify(form.content));
  const [failure, setFailure] = useState<string>();
  const [theirs, setTheirs] = useState<FormShape | null>(null);
  const content = history.now;
  const isSaved = JSON.stringify(content) === saved;
  // what goes to the server goes one after the other, each against the version that the one before made
  const sending = useRef<Promise<unknown>>(Promise.resolve());
  const kept = useRef({ version: form.version, text: JSON.stringify(form.content) });
  const wanted = useRef(content);
  useEffect(() => {
    wanted.current = content;
  }, [content]);

  /** Somebody else's state, or the one after publishing: what was typed here gives way to it. */
  const take = useCallback(
    (now: FormShape) => {
      queries.setQueryData(formKeys.one(now.id), now);
      kept.current = { version: now.version, text: JSON.stringify(now.content) };
      wanted.current = now.content;
      setHistory(begun(now.content));
      setSaved(kept.current.text);
      setTheirs(null);
      setFailure(undefined);
    },
    [queries],
  );
  const send = useCallback(async (): Promise<void> => {
    const next = wanted.current;
    const text = JSON.stringify(next);
    if (text === kept.current.text) return;
    try {
      const now = await call<FormShape>(`/forms/${form.id}`, { method: 'PATCH', version: kept.current.version, body: { content: next } });
      kept.current = { version: now.version, text };
      queries.setQueryData(formKeys.one(form.id), now);
      setSaved(text);
      setFailure(undefined);
    } catch (problem) {
      if (problem instanceof ApiProblem && problem.code === 'http.changed_meanwhile')
        setTheirs(problem.body['theirs'] as FormShape); // what this problem carries
      else setFailure(wordsOf(problem));
    }
  }, [form.id, queries]);
  /** Sends what is not there yet, and says against which version to go on; null where it could not be kept. */
  const settle = useCallback(async (): Promise<number | null> => {
    const sent = sending.current.then(send);
    sending.current = sent;
    await sent;
    return kept.current.text === JSON.stringify(wanted.current) ? kept.current.version : null;
  }, [send]);
  useEffect(() => {
    if (isSaved || theirs || !form.canEdit) return;
    const timer = setTimeout(() => void settle(), REST_MS);
    return () => clearTimeout(timer);
  }, [content, isSaved, settle, theirs, form.canEdit]);

  const change = (part: Partial<FormContent>, of: string | null = null) =>
    setHistory((before) => changed(before, { ...before.now, ...part }, of));
  return {
    content,
    faults: [...formFaults(content), ...form.faults.filter(({ fault }) => fault === 'route_gone' || fault === 'rule_gone')],
    state: theirs ? 'conflict' : failure ? 'failed' : isSaved ? 'saved' : 'saving',
    failure,
    theirs,
    change,
    changeItem: (key: string, part: Partial<FormItem>, of: string | null = null) =>
      setHistory((before) =>
        changed(before, { ...before.now, items: before.now.items.map((item) => (item.key === key ? withPart(item, part) : item)) }, of),
      ),
    undo: history.past.length > 0 ? () => setHistory(undone) : null,
    redo: history.future.length > 0 ? () => setHistory(redone) : null,
    settle,
    take,
    keepMine: async () => {
      if (!theirs) return;
      kept.current = { version: theirs.version, text: JSON.stringify(theirs.content) };
      setTheirs(null);
      await settle();
    },
    again: () => void settle(),
  } as const;
}

export type FormDraft = ReturnType<typeof useFormDraft>;

/** An item with a part of it changed; what is undefined is taken out. */
export const withPart = (item: FormItem, part: Partial<FormItem>): FormItem =>
  Object.fromEntries(Object.entries({ ...item, ...part }).filter(([, value]) => value !== undefined)) as unknown as FormItem; // the same item
