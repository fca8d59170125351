import { useQuery } from '@tanstack/react-query';
import type { ClientShape, PiecesChangedShape, CopyChangesBody, CopyRowShape, CopyTableShape } from '@zesting/contract';
import { useState, type ClipboardEvent } from 'react';
import { toast } from 'sonner';
import { brandQuery } from '../../../api/clients';
import { call, wordsOf } from '../../../lib/api';
import { count } from '../../../lib/format';
import { useKept } from '../../../lib/kept';
import { useWrite } from '../../../lib/queries';
import { Button } from '../../../ui/button';
import {
  changesOf,
  COPY_FIELDS,
  FIELD_WORDS,
  filledDown,
  isBehind,
  pasted,
  rowKey,
  typed,
  without,
  type CopyDraft,
  type CopyField,
  type Filled,
} from './copy-draft';
import { tableIn } from '../table-in';
import { CopyRow } from './copy-row';

const NOTHING: CopyDraft = {};

/** What is typed into the table, and what can be done with it. */
function useCopyDraft(client: ClientShape, rows: readonly CopyRowShape[]) {
  const [kept, setKept] = useKept<CopyDraft>(`copy:${client.id}`);
  const [before, setBefore] = useState<CopyDraft>();
  const [said, setSaid] = useState('');
  const draft = kept ?? NOTHING;
  const put = (next: CopyDraft) => setKept(Object.keys(next).length === 0 ? null : next);
  const write = useWrite((body: CopyChangesBody) => call<PiecesChangedShape>(`/clients/${client.id}/copy`, { method: 'PUT', body }), {
    quiet: true,
  });
  const takeIn = ({ draft: next, cells, left }: Filled) => {
    setBefore(draft);
    put(next);
    setSaid(`${count(cells, 'cell')} filled${left > 0 ? `, ${left} had no place` : ''}. Nothing is saved yet.`);
  };
  const save = () => {
    const changes = changesOf(draft, rows);
    if (changes.length === 0) return;
    write.mutate(
      { changes },
      {
        onSuccess: ({ saved, refused }) => {
          put(without(draft, saved));
          setBefore(undefined);
          setSaid('');
          if (refused.length > 0) toast.error(`${count(refused.length, 'piece')} could not be saved: somebody else changed it meanwhile.`);
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
    type: (row: CopyRowShape, field: CopyField, text: string) => put(typed(draft, row, field, text)),
    takeIn,
    /** takes back the last paste or fill */
    undo:
      before &&
      (() => {
        put(before);
        setBefore(undefined);
        setSaid('');
      }),
    save,
    /** of a piece that somebody else changed: keeps what was typed here, upon their state */
    keepMine: ({ pieceId, contentVersion }: CopyRowShape) =>
      put(
        Object.fromEntries(
          Object.entries(draft).map(([key, row]) => [key, key.startsWith(`${pieceId}:`) ? { ...row, contentVersion } : row]),
        ),
      ),
    takeTheirs: ({ pieceId }: CopyRowShape) => put(without(draft, [pieceId])),
  };
}

/** The rows of a period, each cell written in place; a table from a spreadsheet is pasted into it. */
export function CopyTable({ client, table: { rows, pages } }: { client: ClientShape; table: CopyTableShape }) {
  const work = useCopyDraft(client, rows);
  const { draft } = work;
  const [checked, setChecked] = useState<ReadonlySet<string>>(new Set());
  const { data: sheet } = useQuery(brandQuery(client.id));
  const answers = new Map(pages.map(({ address, status }) => [address, status]));
  const chosen = rows.filter(({ placementId }) => checked.has(placementId));
  const changed = new Set(Object.keys(draft).filter((key) => rows.some((row) => rowKey(row) === key)));
  const behind = rows.filter((row) => isBehind(row, draft)).length;
  const paste = (event: ClipboardEvent, row: number, field: CopyField) => {
    const table = tableIn(event.clipboardData.getData('text/plain'), event.clipboardData.getData('text/html'));
    if (!table) return;
    event.preventDefault();
    work.takeIn(pasted(draft, rows, { row, field }, table));
  };
  const check = (id: string, isOn: boolean) => setChecked(new Set(isOn ? [...checked, id] : [...checked].filter((other) => other !== id)));
  return (
    <>
      <div className="sticky top-0 z-10 bg-paper flex flex-wrap items-center gap-2 py-2 min-h-12 text-[13px] no-print">
        <Button look="main" disabled={changed.size === 0 || work.isSaving} onClick={work.save}>
          {changed.size === 0 ? 'Save' : `Save ${count(changed.size, 'row')}`}
        </Button>
        {behind > 0 && <span className="text-rind">{count(behind, 'row')} changed by somebody else meanwhile</span>}
        {chosen.length > 1 && (
          <span className="flex flex-wrap items-center gap-2" role="group" aria-label="Fill down">
            <span className="text-muted">As in the first of {chosen.length}:</span>
            {COPY_FIELDS.map((field) => (
              <Button key={field} onClick={() => work.takeIn(filledDown(draft, chosen, field))}>
                {FIELD_WORDS[field]}
              </Button>
            ))}
          </span>
        )}
        <span role="status" className="text-lake">
          {work.said}
        </span>
        {work.undo && (
          <Button look="quiet" onClick={work.undo}>
            Take it back
          </Button>
        )}
        {chosen.length < 2 && !work.said && (
          <span className="text-muted">Cells of a spreadsheet are pasted from where you stand, to the right and down.</span>
        )}
      </div>
      <div className="card overflow-x-auto">
        <table className="w-full text-[13px] border-collapse min-w-[1000px]" aria-label={`Copy of ${client.name}`}>
          <thead>
            <tr className="text-left text-muted">
              <th className="p-2 w-8 font-normal">
                <span className="sr-only">Chosen</span>
              </th>
              <th className="p-2 w-28 font-normal">Goes out</th>
              <th className="p-2 w-44 font-normal">Piece</th>
              <th className="p-2 font-normal">{FIELD_WORDS.copy}</th>
              <th className="p-2 w-44 font-normal">{FIELD_WORDS.tags}</th>
              <th className="p-2 w-36 font-normal">{FIELD_WORDS.firstComment}</th>
              <th className="p-2 w-36 font-normal">{FIELD_WORDS.link}</th>
              <th className="p-2 w-44 font-normal">Asks to</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row, index) => (
              <CopyRow
                key={row.placementId}
                row={row}
                draft={draft}
                isFirstOfDay={rows[index - 1]?.on !== row.on}
                isChecked={checked.has(row.placementId)}
                words={{ wordsNever: sheet?.brand.wordsNever ?? [], wordsToUse: sheet?.brand.wordsToUse ?? [] }}
                answers={answers}
                onCheck={(isOn) => check(row.placementId, isOn)}
                onType={(field, text) => work.type(row, field, text)}
                onPaste={(event, field) => paste(event, index, field)}
                onKeepMine={() => work.keepMine(row)}
                onTakeTheirs={() => work.takeTheirs(row)}
              />
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}
