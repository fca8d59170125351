import { addDays, periodStart, themeOn, type Day, type Theme, type ThemeCycle } from '@zesting/core';
import type { PlanThemeShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';

interface Themed {
  readonly themes: readonly Theme[];
  readonly cycle: ThemeCycle | null;
}

/** A client's themes that touch a period, and its cycle. */
export async function themesOf(app: App, clientId: string, from: Day, to: Day): Promise<Themed> {
  const [row] = await app.read<{ themes: Theme[]; cycle: ThemeCycle | null }>(
    `select coalesce((select jsonb_agg(jsonb_build_object('period', t.period, 'startOn', t.start_on, 'name', t.name) order by t.period, t.start_on)
         from themes t where t.client_id = $1 and t.start_on between $2 and $3), '[]') as themes,
       (select jsonb_build_object('names', p.cycle_names, 'fromMonth', p.cycle_from) from client_plans p where p.client_id = $1 and cardinality(p.cycle_names) > 0) as cycle`,
    [clientId, addDays(from, -6), to],
  );
  return row ?? { themes: [], cycle: null };
}

/** The theme of the month and those of its weeks that have one of their own. */
export function themesShown({ themes, cycle }: Themed, from: Day, to: Day): PlanThemeShape[] {
  const ofMonth = themeOn(
    from,
    themes.filter(({ period }) => period === 'month'),
    cycle,
  );
  const weeks = themes.filter(({ period, startOn }) => period === 'week' && startOn <= to && startOn >= periodStart(from, 'week'));
  return [
    ...(ofMonth ? [{ period: 'month' as const, startOn: from, ...ofMonth }] : []),
    ...weeks.map((theme) => ({ ...theme, from: 'week' as const })),
  ];
}
