import { useSuspenseQuery } from '@tanstack/react-query';
import type { ClientRow } from '@zesting/contract';
import { Link } from 'react-router';
import { clientRowsQuery } from '../../api/clients';
import { call } from '../../lib/api';
import { count } from '../../lib/format';
import { namesWords } from '../../lib/policy-words';
import { useSession, useWrite } from '../../lib/queries';
import { useOpened } from '../../lib/use-opened';
import { Button } from '../../ui/button';
import { Empty, PageHead } from '../../ui/page';
import { zoneClock } from '../../ui/setup-fields';
import { ClientCode, Tag } from '../../ui/tags';
import { NewClientDialog } from './new-client-dialog';

/** The clients, with what is open and in danger of each. */
export function ClientsPage() {
  const { role } = useSession();
  const { data: rows } = useSuspenseQuery(clientRowsQuery);
  const { opened, open, close } = useOpened();
  const [here, archived] = [rows.filter((row) => row.archivedAt === null), rows.filter((row) => row.archivedAt !== null)];
  return (
    <>
      <PageHead title="Clients" note={count(here.length, 'client')}>
        {role === 'lead' && (
          <Button look="main" onClick={() => open('new')}>
            Take on a client
          </Button>
        )}
      </PageHead>
      {here.length === 0 ? (
        <Empty title="No client yet">{role === 'lead' ? 'Take on the first one.' : 'A lead gives you clients to manage.'}</Empty>
      ) : (
        <ClientTable rows={here} />
      )}
      {archived.length > 0 && (
        <details className="mt-4">
          <summary className="text-pine font-medium min-h-8">Archived ({archived.length})</summary>
          <ul className="card px-4 py-1">
            {archived.map((row) => (
              <Archived key={row.id} row={row} />
            ))}
          </ul>
        </details>
      )}
      {role === 'lead' && opened === 'new' && <NewClientDialog taken={rows} onClose={close} />}
    </>
  );
}

function ClientTable({ rows }: { rows: readonly ClientRow[] }) {
  return (
    <div className="card overflow-x-auto">
      <table className="w-full text-left">
        <thead className="text-muted text-[13px]">
          <tr>
            <th className="font-medium px-4 py-2">Client</th>
            <th className="font-medium pr-4">Where it is</th>
            <th className="font-medium pr-4">Account managers</th>
            <th className="font-medium pr-4 text-right">Contacts</th>
            <th className="font-medium pr-4 text-right">Open pieces</th>
            <th className="font-medium pr-4">Danger</th>
          </tr>
        </thead>
        <tbody className="tabular">
          {rows.map((row) => (
            <tr key={row.id} className="border-t border-line">
              <td className="px-4 py-1.5">
                <Link to={`/clients/${row.id}`} className="inline-flex items-center gap-3 no-underline hover:underline min-h-8 font-medium">
                  <ClientCode code={row.code} colour={row.colour} />
                  {row.name}
                </Link>
              </td>
              <td className="pr-4 text-muted">{zoneClock(row.zone)}</td>
              <td className="pr-4">{row.managers.length > 0 ? namesWords(row.managers) : <Tag tone="rind">the leads</Tag>}</td>
              <td className="pr-4 text-right">{row.contacts}</td>
              <td className="pr-4 text-right">{row.openPieces}</td>
              <td className="pr-4">
                {row.inDanger > 0 ? (
                  <Tag tone="rhubarb">{row.inDanger} late or out of reach</Tag>
                ) : (
                  <span className="text-muted">none</span>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Archived({ row }: { row: ClientRow }) {
  const restore = useWrite(() => call(`/clients/${row.id}/archive`, { method: 'POST', body: { archived: false } }));
  return (
    <li className="flex items-center gap-3 border-t border-line first:border-t-0 py-1.5">
      <ClientCode code={row.code} colour={row.colour} />
      <span>{row.name}</span>
      <Button look="quiet" className="ml-auto" disabled={restore.isPending} onClick={() => restore.mutate(undefined)}>
        Restore {row.name}
      </Button>
    </li>
  );
}
