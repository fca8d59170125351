import {
  copyOnChannel,
  linksOn,
  mediaShown,
  preflight,
  type ChannelRules,
  type CheckedMedium,
  type ClientRules,
  type FormatText,
  type Content,
  type Finding,
  type InstantText,
  type LinkAnswers,
  type PublishWindow,
  type SendingAccess,
} from '@zesting/core';
import type { GoingOutRowShape, PlacementCheckShape } from '@zesting/contract';
import type { App } from '../../../platform/app.js';
import { pageAnswers } from '../../asked-pages/index.js';
import { windowOf } from '../../embargoes/index.js';
import { oldFrom } from '../../kept-files/index.js';
import { loadSources, signOffOf } from '../../planning/index.js';
import { channelRules, checkedMedium, fileFacts, firstPicture, PLACEMENT_COLUMNS, type FileFacts } from '../../production/index.js';
import { seenOf, type Looked } from '../seen.js';
import { STOPPED } from './stopped.js';

/** A placement with all that its preflight needs; of what is out, the content that went out. */
export interface Placed extends Omit<GoingOutRowShape, 'findings' | 'check' | 'wasChecked' | 'seen' | 'byItself'> {
  content: Content;
  digests: Looked['digests'];
  rules: ChannelRules;
  window: PublishWindow;
  client: ClientRules;
  texts: FormatText[];
  checkedSeen: string | null;
  checked: PlacementCheckShape | null;
  channelKind: string;
  /** how its channel is reached by which it goes out by itself; null where somebody posts it */
  link: { accessEndsOn: string | null; audience: string; lateMinutes: number; stopped: string | null } | null;
}

/** What `FROM` gives as a `Placed`. */
const COLUMNS = `${PLACEMENT_COLUMNS}, p.title as "pieceTitle", p.number as "pieceNumber", f.name as "formatName", f.texts, l.publish_at as "publishAt",
  ${firstPicture('coalesce(v.content, p.content)')} as "pictureId", coalesce(v.content, p.content) as content, p.digests,
  ${channelRules('h')} as rules, ${windowOf('p.id')} as window,
  jsonb_build_object('wordsNever', c.brand -> 'wordsNever', 'wordsToUse', c.brand -> 'wordsToUse', 'needsDisclosure', coalesce((c.brand ->> 'needsDisclosure')::boolean, false)) as client,
  k.seen as "checkedSeen", case when k.placement_id is null then null else jsonb_build_object('by', w.name, 'at', k.checked_at) end as checked,
  h.kind as "channelKind", case when n.channel_id is null then null else jsonb_build_object('accessEndsOn', n.access_ends_on, 'audience', n.audience,
    'lateMinutes', n.late_minutes, 'stopped', ${STOPPED}) end as link,
  (select jsonb_build_object('state', g.state, 'code', g.code, 'reason', g.reason, 'tries', g.tries, 'claimedAt', g.claimed_at, 'nextAt', g.next_at,
     'comment', g.comment_state, 'askedBy', g.asked_by, 'settledBy', g.settled_by)
   from sendings g where g.placement_id = l.id order by g.claimed_at desc limit 1) as sending`;
const FROM = `from placements l join channels h on h.id = l.channel_id join pieces p on p.id = l.piece_id join clients c on c.id = l.client_id
  join formats f on f.id = p.format_id left join versions v on v.id = l.out_version_id
  left join placement_checks k on k.placement_id = l.id left join people w on w.id = k.person_id left join channel_links n on n.channel_id = h.id`;

/** Placements of that condition. @param rest the condition, the order and the limit, over `l`, `p`, `h` and `c` */
export const placedWhere = (app: App, rest: string, values: readonly unknown[]): Promise<Placed[]> =>
  app.read<Placed>(`select ${COLUMNS} ${FROM} where ${rest}`, [...values]);

interface Blackout {
  clientId: string | null;
  name: string;
  startOn: string;
  endOn: string;
}

/** What speaks against placements, besides what stands in them. */
interface Around {
  readonly files: ReadonlyMap<string, FileFacts>;
  readonly links: LinkAnswers;
  /** the last day on which a client’s bytes are good */
  readonly goodTo: (clientId: string, hash: string) => string | undefined;
  readonly blackouts: readonly Blackout[];
  /** whether the parts of a missed one are signed; of others their state says it */
  readonly isSigned: (placed: Placed) => boolean;
  readonly now: InstantText;
}

/** States that say by themselves whether both parts are signed. */
const SAYS_SIGNED: readonly string[] = ['pencilled', 'scheduled', 'sending', 'out'] satisfies Placed['state'][];

async function around(app: App, all: readonly Placed[]): Promise<Around> {
  const files = await fileFacts(
    app,
    all.flatMap(({ content }) => content.shared.media.map(({ assetId }) => assetId)),
  );
  const links = await pageAnswers(
    app,
    all.flatMap(({ content, channelId }) => linksOn(content, channelId)),
  );
  const goodTo = await oldFrom(
    app,
    all.map(({ clientId }) => clientId),
    all.flatMap(({ content }) => content.shared.media.map(({ hash }) => hash)),
  );
  const days = all.flatMap(({ on }) => on ?? []).sort();
  const blackouts = await app.read<Blackout>(
    `select client_id as "clientId", name, start_on as "startOn", end_on as "endOn" from markers
     where kind = 'blackout' and (client_id is null or client_id = any($1)) and end_on >= $2 and start_on <= $3 order by start_on, name`,
    [[...new Set(all.map(({ clientId }) => clientId))], days[0] ?? null, days.at(-1) ?? null],
  );
  const passed = [...new Set(all.filter(({ state }) => !SAYS_SIGNED.includes(state)).map(({ pieceId }) => pieceId))];
  const signOffs = new Map((await loadSources(app.manager, passed)).map((source) => [source.id, signOffOf(source)]));
  return {
    files,
    links,
    goodTo,
    blackouts,
    isSigned: ({ state, pieceId, channelId }) => {
      if (SAYS_SIGNED.includes(state)) return state !== 'pencilled';
      const signOff = signOffs.get(pieceId);
      return signOff?.shared === 'signed' && signOff.channels[channelId] === 'signed';
    },
    now: app.clock.now(),
  };
}

const mediaOf = ({ content, channelId, clientId }: Placed, { files, goodTo }: Around): CheckedMedium[] =>
  mediaShown(content.shared.media, content.channels[channelId]).map((medium) => ({
    ...checkedMedium(medium, files),
    goodTo: goodTo(clientId, medium.hash),
  }));

/** What is out, or on its way there: nothing is to be settled before it goes. */
const SPOKEN_FOR: readonly string[] = ['out', 'sending', 'unsure'] satisfies Placed['state'][];

/** Whether its time has passed; what goes out by itself may still do so a while later. */
const hasPassed = ({ publishAt, link, state }: Placed, now: InstantText): boolean =>
  Date.parse(publishAt) + (link && state === 'scheduled' ? link.lateMinutes * 60_000 : 0) <= Date.parse(now);

function accessOf({ link, channelKind, on }: Placed): SendingAccess | null {
  if (!link) return null;
  const { accessEndsOn, audience, stopped } = link;
  return {
    stopped,
    hasEnded: accessEndsOn !== null && accessEndsOn < (on ?? ''),
    lacksAudience: channelKind === 'newsletter' && audience.trim() === '',
  };
}

function findingsOf(placed: Placed, others: readonly Placed[], facts: Around): Finding[] {
  if (SPOKEN_FOR.includes(placed.state)) return [];
  const { content, channelId, rules, window, client, texts, pieceId, on } = placed;
  return preflight({
    content,
    channelId,
    rules,
    window,
    client,
    texts,
    pieceId,
    media: mediaOf(placed, facts),
    links: facts.links,
    on,
    isSigned: facts.isSigned(placed),
    hasPassed: hasPassed(placed, facts.now),
    sending: accessOf(placed),
    blackouts: facts.blackouts
      .filter(
        ({ clientId, startOn, endOn }) => (clientId ?? placed.clientId) === placed.clientId && startOn <= (on ?? '') && endOn >= (on ?? ''),
      )
      .map(({ name }) => name),
    others: others.map((other) => ({ pieceId: other.pieceId, title: other.pieceTitle, copy: copyOnChannel(other.content, channelId) })),
  });
}

/**
 * Placements with what speaks against them and who has looked at them.
 * @param shown those that are answered
 * @param all what else goes out on their days, among it their twins
 */
export async function goingOutRows(app: App, shown: readonly Placed[], all: readonly Placed[] = shown): Promise<GoingOutRowShape[]> {
  if (shown.length === 0) return [];
  const facts = await around(app, shown);
  const place = ({ channelId, on }: Placed) => `${channelId} ${on ?? ''}`;
  const together = new Map<string, Placed[]>();
  for (const placed of all) together.set(place(placed), [...(together.get(place(placed)) ?? []), placed]);
  return shown.map((placed) => {
    const {
      content: _content,
      digests,
      rules: _rules,
      window: _window,
      client: _client,
      checkedSeen,
      checked,
      channelKind: _kind,
      link,
      ...row
    } = placed;
    const seen = seenOf({ digests, channelId: row.channelId, on: row.on, at: row.at });
    const others = (together.get(place(placed)) ?? []).filter((other) => other.id !== placed.id);
    return {
      ...row,
      byItself: link !== null,
      findings: findingsOf(placed, others, facts),
      check: checkedSeen === seen ? checked : null,
      wasChecked: checkedSeen !== null && checkedSeen !== seen,
      seen,
    };
  });
}
