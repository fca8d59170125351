import { useQuery } from '@tanstack/react-query';
import type { AskableFormShape, TableShape, TableTakenShape, TakeTableBody } from '@zesting/contract';
import { cellFields, getDay, guessColumns, readRows, type Column, type FigureOrder, type FoundProblem } from '@zesting/core';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { askableQuery } from '../../api/requests';
import { problemWords } from '../../asked/problem-words';
import { LANGUAGES } from '../../language/language';
import { ApiProblem, call, upload, wordsOf } from '../../lib/api';
import { count } from '../../lib/format';
import { useClients, useSession, useWrite } from '../../lib/queries';
import { ClientField } from '../../parts/client-field';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Field } from '../../ui/field';
import { Loading, PageHead } from '../../ui/page';
import { AskedFormField } from './asked-form-field';
import { FileField } from './file-field';

/** So many problems are shown at once. */
const SHOWN = 100;

/** Requests that come as lines of a table: what its columns are is said, every line is tried, and all are taken or none. */
export function TablePage() {
  const { clients, client, to } = useClients();
  const navigate = useNavigate();
  const session = useSession();
  const [clientId, setClientId] = useState(client?.id ?? clients[0]?.id ?? '');
  const { data: forms } = useQuery({ ...askableQuery(clientId), enabled: clientId !== '' });
  const [formId, setFormId] = useState('');
  const form = forms?.find((one) => one.formId === formId) ?? forms?.[0];
  const [askedBy, setAskedBy] = useState(session.name);
  const [table, setTable] = useState<TableShape & { key: string }>();
  const [failure, setFailure] = useState<string>();
  const read = useWrite((file: File) => upload<TableShape>(`/clients/${clientId}/table/read`, file), { quiet: true });
  const open = async (file: File) => {
    setFailure(undefined);
    try {
      setTable({ ...(await read.mutateAsync(file)), key: crypto.randomUUID() });
    } catch (problem) {
      setTable(undefined);
      setFailure(wordsOf(problem));
    }
  };
  const take = (taken: number) => {
    toast(count(taken, 'request'));
    void navigate(to('/requests'));
  };
  return (
    <>
      <PageHead title="Requests from a table" note="A file of CSV or XLSX: its first line says what the columns are." />
      <div className="card p-4 mb-4 grid gap-x-4 sm:grid-cols-2 lg:grid-cols-4">
        <ClientField clientId={clientId} onChange={setClientId} />
        <AskedFormField forms={forms} form={form} onChange={setFormId} />
        <Field label="Who asks" help="Where no column says it.">
          {(control) => (
            <input {...control} className="field" maxLength={100} value={askedBy} onChange={(event) => setAskedBy(event.target.value)} />
          )}
        </Field>
        <FileField
          label="File"
          error={failure}
          accept=".csv,.tsv,.txt,.xlsx"
          disabled={read.isPending || clientId === ''}
          onFile={(file) => void open(file)}
        />
      </div>
      {forms?.length === 0 && <p className="text-muted">No form of this client asks anything yet: a table is read by one.</p>}
      {read.isPending && <Loading />}
      {table && form && !read.isPending && (
        <Matching
          key={`${table.key} ${form.formId} ${clientId}`}
          table={table}
          form={form}
          clientId={clientId}
          askedBy={askedBy}
          onTaken={take}
        />
      )}
    </>
  );
}

interface MatchingProps {
  readonly table: TableShape & { readonly key: string };
  readonly form: AskableFormShape;
  readonly clientId: string;
  readonly askedBy: string;
  readonly onTaken: (requests: number) => void;
}

/** What the columns are, and how each line fares by that. */
function Matching({ table, form, clientId, askedBy, onTaken }: MatchingProps) {
  const { heads } = table;
  const [columns, setColumns] = useState(() => guessColumns(heads, form.items));
  const [order, setOrder] = useState<FigureOrder>();
  const [leavesOut, setLeavesOut] = useState(false);
  const [refused, setRefused] = useState<readonly FoundProblem[]>([]);
  const [failure, setFailure] = useState<string>();
  const tried = useMemo(
    () => readRows(form.items, columns, table.rows, { todayOn: getDay(form.todayOn), askedBy, ...(order ? { order } : {}) }),
    [form, columns, table, askedBy, order],
  );
  const put = useWrite(
    (body: TakeTableBody) => call<TableTakenShape>(`/clients/${clientId}/table`, { method: 'POST', body, idempotencyKey: table.key }),
    { quiet: true },
  );
  const problems = refused.length > 0 ? refused : tried.problems;
  // what no column says is wanting on every line: said once
  const wanting = [
    ...new Set(problems.filter(({ about, problem }) => problem === 'required' && !columns.includes(about)).map(({ about }) => about)),
  ];
  const told = problems.filter(({ about }) => !wanting.includes(about));
  const wrong = new Set(problems.map(({ line }) => line));
  const right = tried.rows.filter(({ line }) => !wrong.has(line));
  const canTake = right.length > 0 && (wrong.size === 0 || leavesOut);
  const change = (at: number, column: Column) => {
    setRefused([]);
    // one column each: what was it before is nothing now
    setColumns((before) => before.map((one, index) => (index === at ? column : column !== '' && one === column ? '' : one)));
  };
  const send = async () => {
    setFailure(undefined);
    try {
      const rows = right.map(({ line }) => ({ cells: table.rows[line - 2] ?? [] }));
      const { requests } = await put.mutateAsync({
        formId: form.formId,
        columns,
        rows,
        askedBy: askedBy.trim(),
        ...(order ? { order } : {}),
      });
      onTaken(requests);
    } catch (problem) {
      if (problem instanceof ApiProblem && problem.code === 'table.rows_wrong')
        setRefused((problem.body['problems'] as FoundProblem[]).map((one) => ({ ...one, line: right[one.line - 2]?.line ?? one.line })));
      setFailure(wordsOf(problem));
    }
  };
  const fields = cellFields(form.items);
  return (
    <>
      <section aria-label="Columns" className="card p-4 mb-4 overflow-x-auto">
        <h2 className="text-lg mb-2">What the columns are</h2>
        <table className="w-full text-left">
          <thead>
            <tr className="text-muted text-[13px]">
              <th className="font-normal pr-4 pb-1">Column</th>
              <th className="font-normal pr-4 pb-1 hidden sm:table-cell">It says</th>
              <th className="font-normal pb-1">It becomes</th>
            </tr>
          </thead>
          <tbody>
            {heads.map((head, at) => (
              <tr key={at} className="border-t border-line">
                <th scope="row" className="font-medium pr-4 py-1.5 break-words">
                  {head || `Column ${at + 1}`}
                </th>
                <td className="pr-4 py-1.5 text-muted max-w-72 truncate hidden sm:table-cell">{samplesOf(table, at)}</td>
                <td className="py-1.5">
                  <select
                    className="field min-h-8 w-auto max-w-72"
                    aria-label={`${head || `Column ${at + 1}`} becomes`}
                    value={columns[at]}
                    onChange={(event) => change(at, event.target.value as Column)}
                  >
                    <option value="">left out</option>
                    <option value="name">Who asks</option>
                    <option value="email">Their e-mail</option>
                    <optgroup label="Answers">
                      {fields.map(({ key, label }) => (
                        <option key={key} value={`field:${key}`}>
                          {label}
                        </option>
                      ))}
                    </optgroup>
                  </select>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      <section aria-label="Lines" className="card p-4">
        <h2 className="text-lg mb-2">
          {count(tried.rows.length, 'line')}: {wrong.size === 0 ? 'all can be taken' : `${right.length} can be taken, ${wrong.size} cannot`}
        </h2>
        {tried.isAmbiguous && (
          <div className="flex flex-wrap items-center gap-3 mb-3 border-l-4 border-lake pl-3">
            <span>In figures such as 3/4, which is the day?</span>
            <Choice
              label="Order of figures"
              value={order ?? 'day_first'}
              options={[
                ['day_first', 'The first: 3 April'],
                ['month_first', 'The second: 4 March'],
              ]}
              onChange={(next) => {
                setRefused([]);
                setOrder(next);
              }}
            />
          </div>
        )}
        {problems.length > 0 && (
          <>
            <ul aria-label="Problems" className="grid gap-1 mb-3 max-h-80 overflow-y-auto" tabIndex={0}>
              {wanting.map((about) => (
                <li key={about} className="break-words">
                  <span className="font-medium">No column</span> says {nameOf(about, form)}, which the form needs.
                </li>
              ))}
              {told.slice(0, SHOWN).map((one) => (
                <li key={`${one.line} ${one.about}`} className="break-words">
                  <span className="font-medium tabular">Line {one.line}</span>, {nameOf(one.about, form)}: {wordsFor(one, form)}
                  {one.cell !== '' && <span className="text-muted"> “{one.cell.slice(0, 80)}”</span>}
                </li>
              ))}
              {told.length > SHOWN && <li className="text-muted">and {told.length - SHOWN} more</li>}
            </ul>
            {right.length > 0 && (
              <label className="flex items-center gap-2 min-h-8 mb-2">
                <input
                  type="checkbox"
                  className="size-4 accent-pine"
                  checked={leavesOut}
                  onChange={(event) => setLeavesOut(event.target.checked)}
                />
                Leave out the {wrong.size === 1 ? 'line that cannot be taken' : `${wrong.size} lines that cannot be taken`}
              </label>
            )}
          </>
        )}
        {failure && (
          <p role="alert" className="text-rhubarb font-medium mb-3">
            {failure}
          </p>
        )}
        <Button look="main" disabled={!canTake || put.isPending} onClick={() => void send()}>
          {right.length === 0 ? 'Nothing can be taken' : `Take ${count(right.length, 'request')}`}
        </Button>
      </section>
    </>
  );
}

/** The first three things that stand in a column. */
const samplesOf = ({ rows }: TableShape, at: number): string =>
  rows
    .map((row) => row[at]?.trim() ?? '')
    .filter(Boolean)
    .slice(0, 3)
    .join(' · ');

const fieldOf = (about: Column, form: AskableFormShape) => cellFields(form.items).find(({ key }) => `field:${key}` === about);

const nameOf = (about: Column, form: AskableFormShape): string =>
  about === 'name' ? 'who asks' : about === 'email' ? 'their e-mail' : `“${fieldOf(about, form)?.label ?? about.replace('field:', '')}”`;

function wordsFor({ problem, about }: FoundProblem, form: AskableFormShape): string {
  if (problem === 'no_name') return 'Nobody is said to ask.';
  return problemWords(problem, fieldOf(about, form) ?? { key: about, kind: 'short', label: about }, LANGUAGES.en);
}
