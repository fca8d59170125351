import { useSuspenseQuery } from '@tanstack/react-query';
import type { PieceShape, VersionRow, VersionsShape } from '@zesting/contract';
import { useState, type FormEvent } from 'react';
import { Link, useParams } from 'react-router';
import { toast } from 'sonner';
import { pieceQuery, versionsQuery } from '../../../api/production';
import { call, wordsOf } from '../../../lib/api';
import { instantWords } from '../../../lib/format';
import { useWrite } from '../../../lib/queries';
import { useOpened } from '../../../lib/use-opened';
import { useSearch } from '../../../lib/use-search';
import { Button, buttonClass } from '../../../ui/button';
import { Field } from '../../../ui/field';
import { FormDialog } from '../../../ui/form-dialog';
import { Empty, PageHead } from '../../../ui/page';
import { Tag } from '../../../ui/tags';
import { Comparison } from './comparison';

/** Two versions of a piece side by side: what the client saw last and what is being worked on, unless others are chosen. */
export function VersionsPage() {
  const { pieceId = '' } = useParams();
  const { search, put } = useSearch();
  const { data: piece } = useSuspenseQuery(pieceQuery(pieceId));
  const { data } = useSuspenseQuery(versionsQuery(pieceId, search.get('older'), search.get('newer')));
  const { versions, before, after } = data;
  return (
    <>
      <PageHead title="Versions" note={piece.title}>
        <Link to={`/pieces/${pieceId}`} className={buttonClass()}>
          To the piece
        </Link>
      </PageHead>
      {versions.length === 0 ? (
        <Empty title="Nothing was handed in yet">The first version is kept when somebody hands in a step.</Empty>
      ) : (
        <div className="grid gap-4 items-start lg:grid-cols-[minmax(0,260px)_minmax(0,1fr)]">
          <section aria-label="All versions" className="card p-4">
            <Choose
              label="Before"
              chosen={before.number}
              versions={versions}
              onChoose={(number) => put({ older: number }, { replace: true })}
            />
            <Choose
              label="After"
              chosen={after.number}
              versions={versions}
              withNow
              onChoose={(number) => put({ newer: number }, { replace: true })}
            />
            <ol className="border-t border-line pt-1">
              {versions.map((version) => (
                <VersionLine key={version.id} version={version} piece={piece} data={data} />
              ))}
            </ol>
          </section>
          <Comparison before={before} after={after} />
        </div>
      )}
    </>
  );
}

const nameOf = (number: number | null): string => (number === null ? 'Being worked on' : `Version ${number}`);

interface ChooseProps {
  readonly label: string;
  readonly chosen: number | null;
  readonly versions: readonly VersionRow[];
  /** what is being worked on can be chosen, too */
  readonly withNow?: boolean;
  readonly onChoose: (number: string | null) => void;
}

function Choose({ label, chosen, versions, withNow = false, onChoose }: ChooseProps) {
  return (
    <Field label={label}>
      {(control) => (
        <select {...control} className="field" value={chosen ?? ''} onChange={({ target }) => onChoose(target.value || null)}>
          {withNow && <option value="">{nameOf(null)}</option>}
          {versions.map(({ id, number, rounds }) => (
            <option key={id} value={number}>
              {nameOf(number)}
              {rounds.length > 0 && ` · round ${rounds.join(', ')}`}
            </option>
          ))}
        </select>
      )}
    </Field>
  );
}

/** One version: when, by whom, what became of it at the client's, and the way to bring it back. */
function VersionLine({ version, piece, data }: { version: VersionRow; piece: PieceShape; data: VersionsShape }) {
  const { opened, open, close } = useOpened();
  const { number, frozenAt, frozenBy, rounds, approvals, changes } = version;
  const dialog = `bring-back-${number}`;
  return (
    <li className="py-2 border-t border-line first:border-t-0 text-[13px]">
      <p className="flex flex-wrap items-center gap-x-2 gap-y-1">
        <strong>{nameOf(number)}</strong>
        {rounds.length > 0 && <Tag tone="lake">round {rounds.join(', ')}</Tag>}
        {approvals > 0 && <Tag tone="pine">approved{approvals > 1 && ` by ${approvals}`}</Tag>}
        {changes > 0 && <Tag tone="rind">changes asked</Tag>}
      </p>
      <p className="text-muted tabular">
        {instantWords(frozenAt)}
        {frozenBy && `, ${frozenBy}`}
      </p>
      {piece.canWrite && (
        <Button look="quiet" className="-ml-3" aria-label={`Bring back version ${number}`} onClick={() => open(dialog)}>
          Bring back…
        </Button>
      )}
      {piece.canWrite && opened === dialog && (
        <BringBackDialog number={number} piece={piece} contentVersion={data.contentVersion} onClose={close} />
      )}
    </li>
  );
}

interface BringBackProps {
  readonly number: number;
  readonly piece: PieceShape;
  readonly contentVersion: number;
  readonly onClose: () => void;
}

function BringBackDialog({ number, piece, contentVersion, onClose }: BringBackProps) {
  const [wrong, setWrong] = useState<string>();
  const bring = useWrite(() => call(`/pieces/${piece.id}/versions/${number}/bring-back`, { method: 'POST', version: contentVersion }), {
    quiet: true,
  });
  const onSubmit = (event: FormEvent) => {
    event.preventDefault();
    bring.mutate(undefined, {
      onSuccess: () => {
        toast(`Version ${number} is what is being worked on now.`);
        onClose();
      },
      onError: (problem) => setWrong(wordsOf(problem)),
    });
  };
  return (
    <FormDialog
      form={{ onSubmit, wrong, busy: bring.isPending }}
      onClose={onClose}
      title={`Bring back version ${number}`}
      description={`It becomes what is being worked on. What stands there now and was never handed in is replaced; every version stays as it is. What the client approved of version ${number} counts again.`}
      action="Bring it back"
      leave="Leave as it is"
    >
      {null}
    </FormDialog>
  );
}
