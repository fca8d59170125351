import { RECORD_SCHEME, type Content, type PartDigests, type RecordedDecision, type SignOffRecord, type Verdict } from '@zesting/core';
import type { App } from '../../../platform/app.js';
import { loadSources, signOffOf } from '../../planning/index.js';
import { decisionRecord } from '../decisions.js';

interface DecisionRow {
  sequence: number;
  packet_id: string | null;
  piece_id: string;
  version_id: string;
  contact_id: string | null;
  verdict: Verdict;
  digests: string[];
  remark: string;
  decided_at: string;
  recorded_by: string | null;
  how: string;
  head: string;
  before: string;
  contact_name: string | null;
  round: number;
}

interface Head {
  agency: string;
  client_id: string;
  code: string;
  name: string;
  zone: string;
  number: number;
  title: string;
  chain_head: string;
  chain_sequence: number;
}

/** All that was decided about a piece, with the versions it was about and the client's chain; undefined while nothing was. */
export async function signOffRecord(app: App, pieceId: string): Promise<SignOffRecord | undefined> {
  const [head] = await app.read<Head>(
    `select a.name as agency, c.id as client_id, c.code, c.name, c.zone, p.number, p.title, c.chain_head,
       (select coalesce(max(sequence), 0) from decisions d where d.client_id = c.id) as chain_sequence
     from pieces p join clients c on c.id = p.client_id cross join agencies a where p.id = $1`,
    [pieceId],
  );
  const [source] = await loadSources(app.manager, [pieceId]);
  const decisions = await app.read<DecisionRow>(
    `select d.*, x.name as contact_name, coalesce(i.round, 1) as round,
       coalesce((select o.head from decisions o where o.client_id = d.client_id and o.sequence = d.sequence - 1), repeat('0', 64)) as before
     from decisions d left join contacts x on x.id = d.contact_id
       left join packet_items i on i.packet_id = d.packet_id and i.piece_id = d.piece_id
     where d.piece_id = $1 order by d.sequence`,
    [pieceId],
  );
  if (!head || !source || decisions.length === 0) return undefined;
  const versions = await app.read<{
    id: string;
    number: number;
    content: Content;
    digests: PartDigests;
    scheme: string;
    frozen_at: string;
  }>('select id, number, content, digests, scheme, frozen_at from versions where id = any($1) order by number', [
    decisions.map((decision) => decision.version_id),
  ]);
  const channels = await app.read<{ id: string; name: string }>('select id, name from channels where client_id = $1', [head.client_id]);
  const inVersions = new Set(versions.flatMap((version) => Object.keys(version.content.channels)));
  const { shared, channels: byChannel } = signOffOf(source);
  return {
    scheme: RECORD_SCHEME,
    agency: head.agency,
    client: { id: head.client_id, code: head.code, name: head.name, zone: head.zone },
    piece: { id: pieceId, number: head.number, title: head.title },
    channels: Object.fromEntries(channels.filter(({ id }) => inVersions.has(id)).map(({ id, name }) => [id, name])),
    versions: versions.map(({ frozen_at: frozenAt, ...version }) => ({ ...version, frozenAt })),
    decisions: decisions.map(toRecorded),
    signed: { shared, channels: { ...byChannel } },
    chain: { sequence: head.chain_sequence, head: head.chain_head },
    madeAt: app.clock.now(),
  };
}

const toRecorded = (row: DecisionRow): RecordedDecision => ({
  before: row.before,
  head: row.head,
  record: decisionRecord({
    sequence: row.sequence,
    packetId: row.packet_id,
    pieceId: row.piece_id,
    versionId: row.version_id,
    contactId: row.contact_id,
    verdict: row.verdict,
    digests: row.digests,
    remark: row.remark,
    decidedAt: row.decided_at,
    recordedBy: row.recorded_by,
    how: row.how,
  }),
  contactName: row.contact_name,
  round: row.round,
});
