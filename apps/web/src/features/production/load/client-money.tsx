import { useQuery } from '@tanstack/react-query';
import { moneyQuery } from '../../../api/money';
import { wordsOf } from '../../../lib/api';
import { minutesWords, monthWords } from '../../../lib/format';
import { moneyWords } from '../../../lib/money';
import { useClients, useSession } from '../../../lib/queries';
import { Failed } from '../../../ui/page';
import { ClientCode } from '../../../ui/tags';

/** A month of each client in money: the fee, the hours worked, and what an hour brings; to leads also what they cost. */
export function ClientMoney({ month }: { month: string }) {
  const { clientOf, client } = useClients();
  const { role } = useSession();
  const money = useQuery(moneyQuery(month));
  if (money.isError) return <Failed message={wordsOf(money.error)} onRetry={() => void money.refetch()} />;
  if (!money.data) return null;
  const { currency, clients } = money.data;
  const shown = client ? clients.filter(({ clientId }) => clientId === client.id) : clients;
  const isLead = role === 'lead';
  if (shown.length === 0) return null;
  if (shown.every(({ fee, cost }) => fee === null && !cost))
    return <p className="text-muted text-[13px] mt-3">No fees are agreed yet: they are typed on a client’s page, under Allowance.</p>;
  const words = (amount: number | null) =>
    amount === null ? <span className="text-muted">not agreed</span> : moneyWords(amount, currency);
  const unrated = shown.reduce((sum, { unratedMinutes }) => sum + unratedMinutes, 0);
  return (
    <section aria-labelledby="client-money" className="card p-4 mt-4">
      <h2 id="client-money" className="text-lg mb-2">
        Fees in {monthWords(month)}
      </h2>
      <div className="overflow-x-auto">
        <table className="w-full max-w-3xl text-[13px] whitespace-nowrap">
          <thead>
            <tr className="text-left text-muted">
              <th scope="col" className="font-medium py-1">
                Client
              </th>
              {['Fee', 'Worked', 'Fee per hour', ...(isLead ? ['Hours cost', 'Left of it'] : [])].map((head) => (
                <th key={head} scope="col" className="font-medium py-1 pl-4 text-right">
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody className="tabular">
            {shown.map(({ clientId, fee, workedMinutes, perHour, cost }) => {
              const known = clientOf(clientId);
              const isOver = fee !== null && cost !== null && cost > fee;
              return (
                <tr key={clientId} className="border-t border-line">
                  <th scope="row" className="font-normal text-left py-1.5 max-w-0 w-full truncate">
                    <ClientCode code={known?.code ?? ''} colour={known?.colour ?? 0} name={known?.name ?? ''} /> {known?.name}
                  </th>
                  <td className="text-right pl-4">{words(fee)}</td>
                  <td className="text-right pl-4">{minutesWords(workedMinutes)}</td>
                  <td className="text-right pl-4 font-medium">{perHour === null ? '' : moneyWords(perHour, currency)}</td>
                  {isLead && (
                    <>
                      <td className="text-right pl-4">{cost === null ? '' : moneyWords(cost, currency)}</td>
                      <td className={`text-right pl-4 ${isOver ? 'text-rhubarb font-medium' : ''}`}>
                        {fee === null || cost === null ? '' : moneyWords(fee - cost, currency)}
                      </td>
                    </>
                  )}
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      <p className="text-muted text-[12.5px] mt-2">
        Worked are hours as they were logged, and the effort of steps that ended without any.
        {unrated > 0 && ` ${minutesWords(unrated)} of people without a rate are not in the cost.`}
      </p>
    </section>
  );
}
