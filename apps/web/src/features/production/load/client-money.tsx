import { useQuery } from '@tanstack/react-query';
import type { ClientMoneyShape } from '@zesting/contract';
import { moneyQuery } from '../../../api/money';
import { wordsOf } from '../../../lib/api';
import { minutesWords, monthWords } from '../../../lib/format';
import { moneyWords } from '../../../lib/money';
import { useClients, useSession } from '../../../lib/queries';
import { Failed } from '../../../ui/page';
import { ClientTable } from './client-table';

/** A month of each client in money: the fee, the hours worked, and what an hour brings; to leads also what they cost. */
export function ClientMoney({ month }: { month: string }) {
  const { client } = useClients();
  const { role, todayOn } = useSession();
  const money = useQuery(moneyQuery(month));
  if (money.isError) return <Failed message={wordsOf(money.error)} onRetry={() => void money.refetch()} />;
  if (!money.data) return null;
  const { currency, clients } = money.data;
  const seen = client ? clients.filter(({ clientId }) => clientId === client.id) : clients;
  if (seen.length === 0) return null;
  if (seen.every(({ fee, cost }) => fee === null && !cost))
    return <p className="text-muted text-[13px] mt-3">No fees are agreed yet: they are typed on a client’s page, under Allowance.</p>;
  const isLead = role === 'lead';
  const words = (amount: number | null, none = '') => (amount === null ? none : moneyWords(amount, currency));
  const costs = ({ fee, cost }: ClientMoneyShape) => {
    const left = fee === null || cost === null ? null : fee - cost;
    return [words(cost), <span className={left !== null && left < 0 ? 'text-rhubarb font-medium' : ''}>{words(left)}</span>];
  };
  const unrated = seen.reduce((sum, { unratedMinutes }) => sum + unratedMinutes, 0);
  return (
    <ClientTable
      id="client-money"
      title={`Fees in ${monthWords(month)}`}
      heads={['Fee', 'Worked', 'Fee per hour', ...(isLead ? ['Hours cost', 'Left of it'] : [])]}
      rows={seen.map((one) => ({
        clientId: one.clientId,
        cells: [
          one.fee === null ? <span className="text-muted">not agreed</span> : words(one.fee),
          minutesWords(one.workedMinutes),
          <span className="font-medium">{words(one.perHour)}</span>,
          ...(isLead ? costs(one) : []),
        ],
      }))}
      note={
        <>
          Worked are hours as they were logged, and the effort of steps that ended without any.
          {todayOn.startsWith(month) && ' The month is not over: what an hour brings falls with each that is worked.'}
          {unrated > 0 && ` ${minutesWords(unrated)} of people without a rate are not in the cost.`}
        </>
      }
    />
  );
}
