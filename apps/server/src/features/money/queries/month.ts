import { amountOn, costOf, getDay, lastOfMonth, perHour } from '@zesting/core';
import type { AgreedAmountBody, ClientMoneyShape, MoneyMonthShape } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { isClientsStep } from '../../planning/index.js';
import { currencyOf, toAgreed } from './rates.js';

interface WorkedRow {
  readonly clientId: string;
  readonly personId: string;
  readonly on: string;
  readonly minutes: number;
}

/** What was worked for clients in a month, by person and day: hours as they were logged; of a step that ended without any, its effort. */
const workedIn = (app: App, clientIds: readonly string[], month: string): Promise<WorkedRow[]> =>
  app.read<WorkedRow>(
    `select client_id as "clientId", person_id as "personId", on_day as on, sum(minutes)::int as minutes from (
       select w.client_id, w.person_id, w.on_day, w.minutes from worked w
       where w.client_id = any($1) and w.removed_at is null and w.minutes is not null and w.on_day between $2 and $3
       union all
       select p.client_id, s.doer_id, s.finished_on, s.effort_minutes from steps s join pieces p on p.id = s.piece_id
       where p.client_id = any($1) and s.finished_on between $2 and $3 and s.doer_id is not null and not ${isClientsStep('s')}
         and not exists (select 1 from worked w where w.step_id = s.id and w.removed_at is null and w.minutes is not null)) a
     group by client_id, person_id, on_day`,
    [clientIds, `${month}-01`, lastOfMonth(month)],
  );

/** A month of the viewer's clients in money: fee, hours, what an hour brings; to leads also what the hours cost. */
export async function moneyMonth(app: App, viewer: Viewer, month: string): Promise<MoneyMonthShape> {
  const [currency, worked] = [await currencyOf(app), await workedIn(app, viewer.clientIds, month)];
  const clients = await app.read<{ clientId: string; agreed: AgreedAmountBody[] | null }>(
    'select c.id as "clientId", f.agreed from clients c left join fees f on f.client_id = c.id where c.id = any($1) and c.archived_at is null order by c.name',
    [viewer.clientIds],
  );
  const tellsCost = viewer.role === 'lead';
  const rates = tellsCost
    ? await app.read<{ personId: string; agreed: AgreedAmountBody[] }>('select person_id as "personId", agreed from rates')
    : [];
  const rateOf = new Map(rates.map(({ personId, agreed }) => [personId, toAgreed(agreed)]));
  const first = getDay(`${month}-01`);
  return {
    month,
    currency,
    clients: clients.map(({ clientId, agreed }): ClientMoneyShape => {
      const own = worked.filter((row) => row.clientId === clientId);
      const workedMinutes = own.reduce((sum, { minutes }) => sum + minutes, 0);
      const fee = amountOn(toAgreed(agreed ?? []), first);
      let [cost, unratedMinutes] = [0, 0];
      for (const { personId, on, minutes } of own) {
        const hourly = amountOn(rateOf.get(personId) ?? [], getDay(on));
        if (hourly === null) unratedMinutes += minutes;
        else cost += costOf(minutes, hourly);
      }
      return {
        clientId,
        fee,
        workedMinutes,
        perHour: fee === null ? null : perHour(fee, workedMinutes),
        cost: tellsCost ? cost : null,
        unratedMinutes: tellsCost ? unratedMinutes : 0,
      };
    }),
  };
}
