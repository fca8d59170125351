import { amountOn, getDay, type AgreedAmount, type Day } from '@zesting/core';
import type { AgreedAmountBody } from '@zesting/contract';
import type { App } from '../../../platform/app.js';

/** The agency's currency, by ISO 4217. */
export async function currencyOf(app: App): Promise<string> {
  const [agency] = await app.read<{ currency: string }>('select currency from agencies');
  if (!agency) throw new Error('there is no agency');
  return agency.currency;
}

export const toAgreed = (agreed: readonly AgreedAmountBody[]): AgreedAmount[] =>
  agreed.map(({ fromOn, amount }) => ({ fromOn: getDay(fromOn), amount }));

/** What an hour of each freelance creator is paid on a day, in the smallest unit; those without a rate are left out. */
export async function freelanceRates(app: App, on: Day): Promise<ReadonlyMap<string, number>> {
  const rates = await app.read<{ personId: string; agreed: AgreedAmountBody[] }>(
    `select r.person_id as "personId", r.agreed from rates r join people p on p.id = r.person_id where p.role = 'freelance' and p.active`,
  );
  return new Map(
    rates.flatMap(({ personId, agreed }) => {
      const amount = amountOn(toAgreed(agreed), on);
      return amount === null ? [] : [[personId, amount] as const];
    }),
  );
}
