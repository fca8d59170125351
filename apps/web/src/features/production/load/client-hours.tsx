import type { LoadShape } from '@zesting/contract';
import { minutesWords, monthWords } from '../../../lib/format';
import { ClientTable } from './client-table';

/** The hours of each client in a month: done, still to do, and what the client's allowance includes. */
export function ClientHours({ load: { clients, month } }: { load: LoadShape }) {
  const rows = clients.map(({ clientId, doneMinutes, openMinutes, includedMinutes }) => {
    const all = doneMinutes + openMinutes;
    const isOver = includedMinutes !== null && all > includedMinutes;
    const together = (
      <span className={`font-medium ${isOver ? 'text-rhubarb' : ''}`}>
        {minutesWords(all)}
        {isOver && `, ${minutesWords(all - includedMinutes)} over`}
      </span>
    );
    const agreed = includedMinutes === null ? <span className="text-muted">not agreed</span> : minutesWords(includedMinutes);
    return { clientId, cells: [minutesWords(doneMinutes), minutesWords(openMinutes), together, agreed] };
  });
  return (
    <ClientTable id="client-hours" title={`Hours in ${monthWords(month)}`} heads={['Done', 'To do', 'Together', 'Agreed']} rows={rows} />
  );
}
