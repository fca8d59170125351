import type { PiecesChangedShape, SheetChangesBody, SheetRowShape } from '@zesting/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { call, wordsOf } from '../../../lib/api';
import { count } from '../../../lib/format';
import { useKept } from '../../../lib/kept';
import { useWrite } from '../../../lib/queries';
import { changesOf, keptOver, without, type Filled, type SheetDraft } from './sheet-draft';

const NOTHING: SheetDraft = {};
/** So many lines are sent at once. */
const AT_ONCE = 500;

/** What is put into the sheet and not saved yet, and what can be done with it. @param rows those that are shown */
export function useSheetDraft(rows: readonly SheetRowShape[]) {
  const [kept, setKept] = useKept<SheetDraft>('sheet');
  const [before, setBefore] = useState<SheetDraft>();
  const [said, setSaid] = useState('');
  const draft = kept ?? NOTHING;
  const change = (next: SheetDraft) => setKept(Object.keys(next).length === 0 ? null : next);
  const write = useWrite((body: SheetChangesBody) => call<PiecesChangedShape>('/pieces/sheet', { method: 'PUT', body }), { quiet: true });
  const changes = changesOf(draft, rows);
  const save = () => {
    if (changes.length === 0) return;
    write.mutate(
      { changes: changes.slice(0, AT_ONCE) },
      {
        onSuccess: ({ saved, refused }) => {
          setKept((now) => {
            const next = without(now ?? NOTHING, saved);
            return Object.keys(next).length === 0 ? null : next;
          });
          setBefore(undefined);
          setSaid('');
          if (refused.length > 0) toast.error(refusedWords(refused));
          else toast(`${count(saved.length, 'piece')} saved`);
        },
        onError: (problem) => toast.error(wordsOf(problem)),
      },
    );
  };
  return {
    draft,
    said,
    isSaving: write.isPending,
    changes: changes.length,
    change,
    /** many cells at once: they can be taken back until something is saved */
    takeIn: ({ draft: next, cells, left }: Filled) => {
      setBefore(draft);
      change(next);
      setSaid(`${count(cells, 'cell')} filled${left > 0 ? `, ${left} could not be` : ''}. Nothing is saved yet.`);
    },
    undo:
      before &&
      (() => {
        change(before);
        setBefore(undefined);
        setSaid('');
      }),
    save,
    letGo: () => {
      setBefore(draft);
      change(NOTHING);
      setSaid('What was put in is gone. Nothing was saved.');
    },
    keepMine: (row: SheetRowShape) => change(keptOver(draft, row)),
    takeTheirs: (row: SheetRowShape) => change(without(draft, [row.id])),
  };
}

const WHY: Readonly<Record<string, string>> = {
  'http.changed_meanwhile': 'somebody else changed it meanwhile',
  'person.barred': 'that person does not work for this client',
  'person.unknown': 'that person is no longer with the agency',
  'pillar.unknown': 'the client has no such pillar any more',
  'step.already_finished': 'the step is finished',
};

/** "2 pieces could not be saved: somebody else changed it meanwhile." */
function refusedWords(refused: PiecesChangedShape['refused']): string {
  const reasons = [...new Set(refused.map(({ code }) => WHY[code] ?? 'it is not there any more'))];
  return `${count(refused.length, 'piece')} could not be saved: ${reasons.join('; ')}.`;
}
