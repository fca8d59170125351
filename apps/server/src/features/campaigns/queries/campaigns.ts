import { dayIn, getDay, moveItems, PIECE_STAGES, rollUp, shiftOf, type Danger, type Day, type PieceStage } from '@zesting/core';
import type {
  CampaignMarkerShape,
  CampaignMoveShape,
  CampaignPageShape,
  CampaignPieceShape,
  CampaignShape,
  CampaignsShape,
} from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { datedOf } from './campaign-items.js';

const DANGERS: readonly Danger[] = ['overdue', 'out_of_reach', 'will_be_late'];
/** So many campaigns that were put away are told, the last first. */
const ARCHIVED = 50;

interface CampaignRow extends Omit<CampaignShape, 'stages' | 'inDanger'> {
  readonly archived: boolean;
  readonly all: PieceStage[];
  readonly dangers: Danger[];
}

const COLUMNS = `c.id, c.client_id as "clientId", c.name, c.aim, c.from_on as "fromOn", c.to_on as "toOn", c.channel_ids as "channelIds", c.version,
  c.archived_at is not null as archived,
  array(select p.stage from campaign_pieces g join pieces p on p.id = g.piece_id where g.campaign_id = c.id and not p.shelved) as all,
  array(select p.danger from campaign_pieces g join pieces p on p.id = g.piece_id where g.campaign_id = c.id and p.list is not null and p.danger is not null) as dangers,
  array(select distinct l.on_day::text from campaign_pieces g join placements l on l.piece_id = g.piece_id join pieces p on p.id = g.piece_id
    where g.campaign_id = c.id and not l.cancelled and not p.shelved and l.on_day is not null order by 1) as days,
  (select coalesce(jsonb_agg(jsonb_build_object('id', m.id, 'kind', m.kind, 'name', m.name, 'startOn', m.start_on, 'endOn', m.end_on) order by m.start_on, m.name), '[]')
   from campaign_markers k join markers m on m.id = k.marker_id where k.campaign_id = c.id) as markers`;

const shapeOf = ({ archived: _archived, all, dangers, ...row }: CampaignRow): CampaignShape => ({
  ...row,
  stages: rollUp(PIECE_STAGES, all).map((one) => ({ ...one })),
  inDanger: dangers.filter((danger) => DANGERS.includes(danger)).length,
});

/** Campaigns of clients that touch the days from `from` to `to`, by their first day. */
export async function campaignsOf(
  app: App,
  clientIds: readonly string[],
  { from, to }: { readonly from: string; readonly to: string },
  zone: string,
): Promise<CampaignsShape> {
  const [open, archived, [all]] = await Promise.all([
    app.read<CampaignRow>(
      `select ${COLUMNS} from campaigns c where c.client_id = any($1) and c.archived_at is null and c.to_on >= $2 and c.from_on <= $3
       order by c.from_on, c.name, c.id`,
      [clientIds, from, to],
    ),
    app.read<{ id: string; clientId: string; name: string }>(
      `select id, client_id as "clientId", name from campaigns where client_id = any($1) and archived_at is not null
       order by archived_at desc, id limit ${ARCHIVED}`,
      [clientIds],
    ),
    app.read<{ count: number }>('select count(*) as count from campaigns where client_id = any($1) and archived_at is null', [clientIds]),
  ]);
  return {
    todayOn: dayIn(app.clock.now(), zone),
    campaigns: open.map(shapeOf),
    outside: (all?.count ?? 0) - open.length,
    archived,
  };
}

/** One campaign with its pieces, by the days on which they go out. */
export async function campaignPage(app: App, campaignId: string): Promise<CampaignPageShape> {
  const [row] = await app.read<CampaignRow>(`select ${COLUMNS} from campaigns c where c.id = $1`, [campaignId]);
  if (!row) throw new Error('the campaign went away');
  const pieces = await app.read<CampaignPieceShape>(
    `select p.id, p.number, p.title, p.stage, p.danger, p.aim_on as "aimOn",
       coalesce((select jsonb_agg(jsonb_build_object('id', l.id, 'channelId', l.channel_id, 'on', l.on_day, 'at', to_char(l.at_time, 'HH24:MI'), 'state', l.state)
         order by l.publish_at nulls last, l.id) from placements l where l.piece_id = p.id and not l.cancelled), '[]') as placements
     from campaign_pieces g join pieces p on p.id = g.piece_id where g.campaign_id = $1 and not p.shelved
     order by (select min(l.publish_at) from placements l where l.piece_id = p.id and not l.cancelled) nulls last, p.aim_on nulls last, p.number`,
    [campaignId],
  );
  return { campaign: shapeOf(row), pieces, isArchived: row.archived };
}

/** What another period would make of a campaign. */
export async function campaignMove(app: App, campaignId: string, fromOn: Day, toOn: Day): Promise<CampaignMoveShape> {
  const [campaign] = await app.read<{ fromOn: string; toOn: string; zone: string; undated: number; markers: CampaignMarkerShape[] }>(
    `select c.from_on as "fromOn", c.to_on as "toOn", k.zone,
       (select count(*) from campaign_pieces g join pieces p on p.id = g.piece_id where g.campaign_id = c.id and not p.shelved
         and not exists (select 1 from placements l where l.piece_id = p.id and not l.cancelled and l.on_day is not null)) as undated,
       (select coalesce(jsonb_agg(jsonb_build_object('id', m.id, 'name', m.name, 'startOn', m.start_on) order by m.start_on), '[]')
        from campaign_markers x join markers m on m.id = x.marker_id where x.campaign_id = c.id) as markers
     from campaigns c join clients k on k.id = c.client_id where c.id = $1`,
    [campaignId],
  );
  if (!campaign) throw new Error('the campaign went away');
  const todayOn = dayIn(app.clock.now(), campaign.zone);
  const before = { fromOn: getDay(campaign.fromOn), toOn: getDay(campaign.toOn) };
  const after = { fromOn, toOn };
  const dated = await datedOf(app.manager, campaignId);
  const things = [
    ...dated.map((row) => ({ ...row, kind: 'placement' as const, name: row.title })),
    ...campaign.markers.map(({ id, name, startOn }) => ({
      id,
      kind: 'marker' as const,
      name,
      channelId: null,
      on: getDay(startOn),
      isFixed: false,
      earliestOn: null,
    })),
  ];
  const moved = moveItems(things, before, after, todayOn);
  return {
    byDays: shiftOf(before, after),
    undated: campaign.undated,
    items: moved.map(({ id, from, to, outcome, wasSo }, index) => {
      const thing = things[index];
      return {
        kind: thing?.kind ?? 'placement',
        id,
        name: thing?.name ?? '',
        channelId: thing?.channelId ?? null,
        from,
        to,
        outcome,
        wasSo,
      };
    }),
  };
}
