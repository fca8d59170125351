import type { SheetRowShape, SheetShape } from '@zesting/contract';
import type { Viewer } from '../../../platform/access/access.js';
import type { App } from '../../../platform/app.js';
import { leadOf } from '../../notices/index.js';
import { isClientsStep, isFreeStep } from '../../planning/index.js';
import { askedIds, asksFor, countsOf, type PiecesAsked } from './piece-rows.js';

/** So many pieces at most: more is narrowed by its filter, not scrolled. */
const MOST = 1000;

type Row = Omit<SheetRowShape, 'stepTitles' | 'doerNames'>;

/** Pieces as lines of a sheet, what is open and aimed at soonest first, then what was done latest, with all that a sheet can tell of them. */
export async function sheetOf(app: App, viewer: Viewer, asked: PiecesAsked): Promise<SheetShape> {
  const open = { ...asked, shown: asked.shown ?? 'open' } as const;
  const asks = asksFor(viewer, open);
  const ids = await askedIds(app, asks, MOST);
  const rows = await app.read<Row>(
    `select p.id, p.number, p.version, p.client_id as "clientId", c.code as "clientCode", p.title, f.name as "formatName", p.pillar_id as "pillarId", l.name as "pillarName",
       array(select g.name from campaign_pieces m join campaigns g on g.id = m.campaign_id where m.piece_id = p.id order by g.name) as "campaignNames",
       array(select distinct h.name from placements x join channels h on h.id = x.channel_id where x.piece_id = p.id and not x.cancelled order by h.name) as "channelNames",
       p.lead_id as "leadId", (select w.name from people w where w.id = ${leadOf('p')}) as "leadName", p.purpose, p.stage, p.round, p.wish_on as "wishOn", p.aim_on as "aimOn", p.slack_days as "slackDays", p.danger, n."expectedOn", n."leftMinutes", n."atHand",
       coalesce((select sum(w.minutes) from worked w where w.piece_id = p.id and w.removed_at is null and w.minutes is not null), 0)::int + n."unlogged" as "workedMinutes"
     from pieces p join clients c on c.id = p.client_id join formats f on f.id = p.format_id left join pillars l on l.id = p.pillar_id
     join lateral (
       select max(s.predicted_finish_on) filter (where s.finished_on is null) as "expectedOn",
         coalesce(sum(coalesce(s.remaining_minutes, s.effort_minutes)) filter (where s.finished_on is null and not ${isClientsStep('s')}), 0)::int as "leftMinutes",
         coalesce(sum(s.effort_minutes) filter (where s.finished_on is not null and s.doer_id is not null and not ${isClientsStep('s')}
           and not exists (select 1 from worked w where w.step_id = s.id and w.removed_at is null and w.minutes is not null)), 0)::int as "unlogged",
         coalesce(jsonb_agg(jsonb_build_object('stepId', s.id, 'title', s.title, 'skill', s.skill, 'doerId', s.doer_id, 'doerName', d.name, 'isClients', ${isClientsStep('s')}, 'version', s.version) order by s.position)
           filter (where s.finished_on is null and ${isFreeStep('s')}), '[]') as "atHand"
       from steps s left join people d on d.id = s.doer_id where s.piece_id = p.id) n on true
     where p.id = any($1) order by array_position($1::uuid[], p.id)`,
    [ids],
  );
  return { rows: rows.map(rowShape), ...(await countsOf(app, viewer, open, asks)) };
}

const rowShape = (row: Row): SheetRowShape => ({
  ...row,
  stepTitles: row.atHand.map(({ title }) => title),
  doerNames: [...new Set(row.atHand.flatMap(({ isClients, doerName }) => (isClients ? 'the client' : (doerName ?? []))))],
});
