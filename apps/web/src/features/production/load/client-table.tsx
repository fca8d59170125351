import type { ReactNode } from 'react';
import { useClients } from '../../../lib/queries';
import { ClientCode } from '../../../ui/tags';

interface ClientTableProps {
  readonly id: string;
  readonly title: string;
  readonly heads: readonly string[];
  /** a cell for each head */
  readonly rows: readonly { readonly clientId: string; readonly cells: readonly ReactNode[] }[];
  readonly note?: ReactNode;
}

/** Figures of clients, a row each; where a client is chosen above, its own alone. */
export function ClientTable({ id, title, heads, rows, note }: ClientTableProps) {
  const { clientOf, client } = useClients();
  const shown = client ? rows.filter(({ clientId }) => clientId === client.id) : rows;
  if (shown.length === 0) return null;
  return (
    <section aria-labelledby={id} className="card p-4 mt-4 first:mt-0">
      <h2 id={id} className="text-lg mb-2">
        {title}
      </h2>
      <div className="overflow-x-auto">
        <table className="w-full max-w-3xl text-[13px] whitespace-nowrap">
          <thead>
            <tr className="text-left text-muted">
              {['Client', ...heads].map((head, index) => (
                <th key={head} scope="col" className={`font-medium py-1 ${index > 0 ? 'pl-4 text-right' : ''}`}>
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody className="tabular">
            {shown.map(({ clientId, cells }) => {
              const known = clientOf(clientId);
              return (
                <tr key={clientId} className="border-t border-line">
                  <th scope="row" className="font-normal text-left py-1.5 max-w-0 min-w-36 w-full truncate">
                    <ClientCode code={known?.code ?? ''} colour={known?.colour ?? 0} name={known?.name ?? ''} /> {known?.name}
                  </th>
                  {cells.map((cell, index) => (
                    <td key={heads[index]} className="text-right pl-4">
                      {cell}
                    </td>
                  ))}
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      {note && <p className="text-muted text-[12.5px] mt-2">{note}</p>}
    </section>
  );
}
