import { slotKey, toCase, type BestFillingShape, type FilledSlotsShape, type FillSlotBody, type PlanMonthShape } from '@zesting/contract';
import type { ProposedLine } from '@zesting/core';
import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import { planMonthQuery } from '../../api/plan';
import { call, wordsOf } from '../../lib/api';
import { count } from '../../lib/format';
import { useWrite } from '../../lib/queries';
import { proposeInWorker } from '../../lib/propose';
import { problemWords } from '../../lib/words';
import { filledWith, lacksFormat } from './plan-case';

export interface MonthProposal {
  /** what is proposed, by slot; null: nothing is */
  readonly lines: ReadonlyMap<string, ProposedLine> | null;
  /** slots whose line is taken */
  readonly taken: ReadonlySet<string>;
  readonly busy: boolean;
  readonly propose: () => Promise<void>;
  /** the best filling that there is, sought on the server; undefined: nobody seeks it */
  readonly seeking: { readonly leave: () => void } | undefined;
  /** how the best that was found compares with the quick one; null: it was not sought */
  readonly best: BestFillingShape | null;
  readonly seekBest: () => Promise<void>;
  readonly put: (slotId: string, isTaken: boolean) => void;
  /** fills the slots whose lines are taken */
  readonly take: () => Promise<void>;
  readonly drop: () => void;
}

/** The server takes so many at once. */
const AT_ONCE = 100;

/** Fills slots of a client's month, and says what could not be. */
export function useFill(clientId: string) {
  return useWrite(async (slots: FillSlotBody[]) => {
    const filled: FilledSlotsShape = { slots: [] };
    // what was filled before something failed stays, and is shown as it is
    for (let first = 0; first < slots.length; first += AT_ONCE) {
      const body = { slots: slots.slice(first, first + AT_ONCE) };
      filled.slots.push(...(await call<FilledSlotsShape>(`/clients/${clientId}/plan`, { method: 'POST', body })).slots);
    }
    return filled;
  });
}

/** Says how many slots were filled, and why the others were not. */
export function sayFilled({ slots }: FilledSlotsShape): void {
  const filled = slots.filter(({ pieceId }) => pieceId !== null).length;
  const problems = [...new Set(slots.flatMap(({ problem }) => problem ?? []))];
  if (filled > 0) toast(`${count(filled, 'slot')} filled`);
  if (problems.length > 0)
    toast.error(`${count(slots.length - filled, 'slot')} could not be filled: ${problems.map((code) => problemWords(code)).join(' ')}`);
}

/** Whether a line can be taken as it is: not where neither its slot nor its idea says how it is made. */
function isMadeSomehow(plan: PlanMonthShape, { slotId, candidateId }: ProposedLine): boolean {
  const slot = plan.slots.find((one) => slotKey(one) === slotId);
  const candidate = plan.candidates.find(({ id }) => id === candidateId);
  return slot !== undefined && candidate !== undefined && !lacksFormat(slot, candidate);
}

/** A proposal for the free slots of a month: beside what is there, line by line to take or leave. */
export function useProposal(clientId: string, plan: PlanMonthShape | undefined): MonthProposal {
  const [proposed, setProposed] = useState<{ month: string; lines: ReadonlyMap<string, ProposedLine>; taken: ReadonlySet<string> } | null>(
    null,
  );
  const [thinking, setThinking] = useState(false);
  const [seeking, setSeeking] = useState<MonthProposal['seeking']>();
  const [best, setBest] = useState<BestFillingShape | null>(null);
  const search = useRef<AbortController>(undefined);
  // whoever leaves the page leaves the search too
  useEffect(() => () => search.current?.abort(), []);
  const fill = useFill(clientId);
  const queries = useQueryClient();
  const show = (latest: PlanMonthShape, lines: readonly ProposedLine[]) =>
    setProposed({
      month: latest.month,
      lines: new Map(lines.map((line) => [line.slotId, line])),
      taken: new Set(lines.filter((line) => isMadeSomehow(latest, line)).map(({ slotId }) => slotId)),
    });
  const here = proposed?.month === plan?.month ? proposed : null; // another month has its own
  return {
    lines: here?.lines ?? null,
    taken: here?.taken ?? new Set(),
    busy: thinking || fill.isPending,
    propose: async () => {
      if (!plan) return;
      setThinking(true);
      try {
        // as it is now: a theme that was just set counts
        const latest = await queries.fetchQuery({ ...planMonthQuery(clientId, plan.month), staleTime: 0 });
        const { lines } = await proposeInWorker(toCase(latest));
        show(latest, lines);
        setBest(null);
        if (lines.length === 0) toast('Nothing on the shelf fits these slots. Catch some ideas first, or plan a piece without one.');
      } catch (problem) {
        toast.error(wordsOf(problem));
      } finally {
        setThinking(false);
      }
    },
    seeking,
    best: here ? best : null,
    seekBest: async () => {
      if (!plan) return;
      const waiting = new AbortController();
      search.current = waiting;
      setSeeking({ leave: () => waiting.abort() });
      try {
        const found = await call<BestFillingShape>(`/clients/${clientId}/plan/best?month=${plan.month}`, { signal: waiting.signal });
        const latest = await queries.fetchQuery({ ...planMonthQuery(clientId, plan.month), staleTime: 0 });
        show(latest, found.lines);
        setBest(found);
      } catch (problem) {
        // whoever left it knows
        if (!waiting.signal.aborted) toast.error(wordsOf(problem));
      } finally {
        setSeeking(undefined);
      }
    },
    put: (slotId, isTaken) => {
      if (!here) return;
      const taken = new Set(here.taken);
      if (isTaken) taken.add(slotId);
      else taken.delete(slotId);
      setProposed({ ...here, taken });
    },
    take: async () => {
      if (!here || !plan) return;
      const slots = plan.slots.flatMap((slot) => {
        const line = here.taken.has(slotKey(slot)) ? here.lines.get(slotKey(slot)) : undefined;
        const candidate = plan.candidates.find(({ id }) => id === line?.candidateId);
        if (!candidate || slot.planned) return [];
        return {
          ruleId: slot.ruleId,
          on: slot.on,
          ...filledWith(candidate),
        };
      });
      // what went wrong is said by the write; the proposal stays then
      const filled = await fill.mutateAsync(slots).catch(() => null);
      if (filled === null) return;
      setProposed(null);
      sayFilled(filled);
    },
    drop: () => setProposed(null),
  };
}
