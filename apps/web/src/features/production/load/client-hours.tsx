import type { LoadShape } from '@zesting/contract';
import { minutesWords, monthWords } from '../../../lib/format';
import { useClients } from '../../../lib/queries';
import { ClientCode } from '../../../ui/tags';

/** The hours of each client in a month: done, still to do, and what the client's allowance includes. */
export function ClientHours({ load: { clients, month } }: { load: LoadShape }) {
  const { clientOf, client } = useClients();
  const shown = client ? clients.filter(({ clientId }) => clientId === client.id) : clients;
  if (shown.length === 0) return null;
  return (
    <section aria-labelledby="client-hours" className="card p-4">
      <h2 id="client-hours" className="text-lg mb-2">
        Hours in {monthWords(month)}
      </h2>
      <table className="w-full max-w-3xl text-[13px] whitespace-nowrap">
        <thead>
          <tr className="text-left text-muted">
            <th scope="col" className="font-medium py-1">
              Client
            </th>
            {['Done', 'To do', 'Together', 'Agreed'].map((head) => (
              <th key={head} scope="col" className="font-medium py-1 pl-4 text-right">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody className="tabular">
          {shown.map(({ clientId, doneMinutes, openMinutes, includedMinutes }) => {
            const known = clientOf(clientId);
            const all = doneMinutes + openMinutes;
            const isOver = includedMinutes !== null && all > includedMinutes;
            return (
              <tr key={clientId} className="border-t border-line">
                <th scope="row" className="font-normal text-left py-1.5 max-w-0 w-full truncate">
                  <ClientCode code={known?.code ?? ''} colour={known?.colour ?? 0} name={known?.name ?? ''} /> {known?.name}
                </th>
                <td className="text-right pl-4">{minutesWords(doneMinutes)}</td>
                <td className="text-right pl-4">{minutesWords(openMinutes)}</td>
                <td className={`text-right pl-4 font-medium ${isOver ? 'text-rhubarb' : ''}`}>
                  {minutesWords(all)}
                  {isOver && `, ${minutesWords(all - includedMinutes)} over`}
                </td>
                <td className="text-right pl-4">
                  {includedMinutes === null ? <span className="text-muted">not agreed</span> : minutesWords(includedMinutes)}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
