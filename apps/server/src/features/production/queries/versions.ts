import type { VersionContentShape, VersionRow, VersionsShape } from '@zesting/contract';
import { fail, ok, type Content, type Result } from '@zesting/core';
import type { App } from '../../../platform/app.js';
import { fileFacts, mediumShape, partShape, type FileFacts } from './media-out.js';

interface ContentRow {
  number: number;
  content: Content;
}

/**
 * Two contents of a piece side by side.
 * @param older which version; unless told the last that went to the client, else the newest, and in both the last that says something else
 * @param newer which version; what is being worked on unless told
 */
export async function versionsOf(
  app: App,
  pieceId: string,
  older: number | undefined,
  newer: number | undefined,
): Promise<Result<VersionsShape, { code: 'version.unknown' }>> {
  const found = await app.read<VersionRow & { differs: boolean }>(
    `select v.id, v.number, v.frozen_at as "frozenAt", d.name as "frozenBy",
       to_jsonb(array(select i.round from packet_items i where i.version_id = v.id order by i.round)) as rounds,
       (select count(*) from decisions e where e.version_id = v.id and e.verdict = 'approve') as approvals,
       (select count(*) from decisions e where e.version_id = v.id and e.verdict = 'changes') as changes,
       v.digests <> p.digests as differs
     from versions v join pieces p on p.id = v.piece_id left join people d on d.id = v.frozen_by where v.piece_id = $1 order by v.number desc`,
    [pieceId],
  );
  const [piece] = await app.read<{ content: Content; content_version: number }>(
    'select content, content_version from pieces where id = $1',
    [pieceId],
  );
  if (!piece) throw new Error('the piece went away');
  const versions = found.map(({ differs: _, ...version }) => version);
  const sent = found.filter(({ rounds }) => rounds.length > 0);
  const chosen = older ?? (sent.find(({ differs }) => differs) ?? sent[0] ?? found.find(({ differs }) => differs) ?? found[0])?.number;
  const frozen = await app.read<ContentRow>('select number, content from versions where piece_id = $1 and number = any($2)', [
    pieceId,
    [chosen, newer].filter((number) => number !== undefined),
  ]);
  const contentOf = (number: number | undefined) => frozen.find((version) => version.number === number)?.content;
  const [before, after] = [
    chosen === undefined ? piece.content : contentOf(chosen),
    newer === undefined ? piece.content : contentOf(newer),
  ];
  if (!before || !after) return fail({ code: 'version.unknown' });
  const known = await knownOf(app, [before, after]);
  return ok({
    versions,
    before: shapeOf(chosen ?? null, before, known),
    after: shapeOf(newer ?? null, after, known),
    contentVersion: piece.content_version,
  });
}

interface Known {
  readonly files: ReadonlyMap<string, FileFacts>;
  readonly channels: readonly { readonly id: string; readonly name: string }[];
}

async function knownOf(app: App, contents: readonly Content[]): Promise<Known> {
  const files = await fileFacts(
    app,
    contents.flatMap(({ shared }) => shared.media.map(({ assetId }) => assetId)),
  );
  const channels = await app.read<{ id: string; name: string }>('select id, name from channels where id = any($1) order by position', [
    contents.flatMap((content) => Object.keys(content.channels)),
  ]);
  return { files, channels };
}

const shapeOf = (number: number | null, { shared, channels }: Content, known: Known): VersionContentShape => ({
  number,
  copy: shared.copy,
  disclosure: shared.disclosure,
  isLaidOut: shared.isLaidOut === true,
  texts: [...(shared.texts ?? [])],
  media: shared.media.map((medium) => mediumShape(medium, known.files)),
  channels: known.channels.flatMap(({ id, name }) => {
    const part = channels[id];
    return part ? [{ channelId: id, name, ...partShape(part) }] : [];
  }),
});
