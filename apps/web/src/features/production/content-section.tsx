import type { PieceShape, UploadShape } from '@zesting/contract';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';

import { copyWords, linksOn, type Content } from '@zesting/core';
import { pageAnswersQuery } from '../../api/asked-pages';
import { brandQuery } from '../../api/clients';
import { materialQuery } from '../../api/material';
import { useUploads } from '../../lib/use-uploads';
import { Button } from '../../ui/button';
import { Field } from '../../ui/field';
import { Tabs } from '../../ui/tabs';
import { Tag } from '../../ui/tags';
import { AgencyApproval } from './agency-approval';
import { ChannelEditor, findingsOn, type Checked } from './channel-editor';
import { WordsToUse } from './client-words';
import { ConflictDialog } from './conflict-dialog';
import { KeptFileChoice } from './kept-file-choice';
import { filesToTake } from './material/material-words';
import { MediaEditor } from './media-editor';
import { PartTag } from './part-tag';
import { PhraseChoice } from './phrase-choice';
import { StepActions } from './step-actions';
import { useDraft } from './use-draft';
import { CopyField, isLaidOutNow, type WrittenCopy } from './writing/copy-field';
import { FirstDraft } from './writing/first-draft';
import { WrittenTexts } from './writing/written-texts';

/** The piece's content: the shared part, and a part per channel with its preview. */
export function ContentSection({ piece }: { piece: PieceShape }) {
  const work = useDraft(piece);
  const { draft, isDirty, busy, change, save } = work;
  const [tab, setTab] = useState(draft.channels[0]?.channelId ?? '');
  const uploads = useUploads(`/pieces/${piece.id}/uploads`, (file) => work.addMedium(file));
  const readOnly = !piece.canWrite;
  const { data: sheet } = useQuery(brandQuery(piece.clientId));
  const { data } = useQuery(materialQuery(piece.id));
  const brought = (data?.material ?? []).flatMap(({ file }) => file ?? []);
  const { data: answers } = useQuery(pageAnswersQuery(piece.id, piece.content.version, linksOfPiece(piece.content)));
  const rules = {
    wordsNever: sheet?.brand.wordsNever ?? [],
    wordsToUse: sheet?.brand.wordsToUse ?? [],
    needsDisclosure: sheet?.brand.needsDisclosure ?? false,
  };
  const checked: Checked = { rules, answers: new Map(answers?.rows.map(({ address, status }) => [address, status])) };
  const isLaidOut = isLaidOutNow(draft.shared, piece.content.laysOut);
  const putCopy = (copy: WrittenCopy) => change({ ...draft, shared: { ...draft.shared, ...copy } });
  const takeOnce = (file: UploadShape, alt: string) => {
    if (!draft.shared.media.some(({ assetId }) => assetId === file.assetId)) work.addMedium(file, alt);
  };
  return (
    <section aria-labelledby="content" className="card p-4">
      <div className="flex flex-wrap items-center gap-2 mb-3">
        <h2 id="content" className="text-lg">
          Content
        </h2>
        <PartTag state={draft.shared.state} />
        <Link to={`/brand/${piece.clientId}`} className="text-pine underline text-[13px]">
          Brand sheet
        </Link>
        <Link to={`/pieces/${piece.id}/versions`} className="text-pine underline text-[13px]">
          Versions
        </Link>
        <Link to={`/pieces/${piece.id}/remarks`} className="text-pine underline text-[13px]">
          Remark at a place
        </Link>
        <span className="ml-auto flex items-center gap-2">
          {isDirty && <span className="text-rind text-[13px]">Not saved yet</span>}
          {!readOnly && (
            <Button onClick={() => void save()} disabled={!isDirty || busy}>
              Save
            </Button>
          )}
        </span>
      </div>
      <StepActions piece={piece} save={save} busy={busy} />
      <AgencyApproval piece={piece} />
      <WrittenTexts
        texts={draft.shared.texts}
        rules={rules}
        readOnly={readOnly}
        media={draft.shared.media}
        onChange={(texts, media = draft.shared.media) => change({ ...draft, shared: { ...draft.shared, texts, media } })}
      />
      <CopyField
        shared={draft.shared}
        laysOut={piece.content.laysOut}
        language={piece.content.language}
        rules={rules}
        readOnly={readOnly}
        onChange={putCopy}
      />
      {!readOnly && (
        <FirstDraft
          piece={piece}
          channels={draft.channels}
          copy={draft.shared.copy}
          isLaidOut={isLaidOut}
          onPut={(copy) => putCopy({ copy, isLaidOut })}
        />
      )}
      {!readOnly && <WordsToUse text={copyWords(draft.shared)} words={rules.wordsToUse} />}
      {!readOnly && (
        <PhraseChoice pieceId={piece.id} copy={draft.shared.copy} isLaidOut={isLaidOut} onChoose={(copy) => putCopy({ copy, isLaidOut })} />
      )}
      <MediaEditor
        media={draft.shared.media}
        readOnly={readOnly}
        uploads={uploads}
        atHand={filesToTake([...brought, ...piece.brief.requests.flatMap(({ files }) => files)], draft.shared.media)}
        onTake={(file) => work.addMedium(file)}
        library={<KeptFileChoice piece={piece} onTake={takeOnce} />}
        onChange={(media) => change({ ...draft, shared: { ...draft.shared, media } })}
      />
      <Field
        label="Disclosure"
        help="Such as “paid partnership”, where the law or the client asks for it."
        error={
          rules.needsDisclosure && draft.shared.disclosure.trim() === ''
            ? 'This client asks for one on everything that goes out'
            : undefined
        }
      >
        {(control) => (
          <input
            {...control}
            className="field"
            readOnly={readOnly}
            value={draft.shared.disclosure}
            onChange={(event) => change({ ...draft, shared: { ...draft.shared, disclosure: event.target.value } })}
          />
        )}
      </Field>
      <Tabs
        label="Channels"
        value={tab}
        onChange={setTab}
        tabs={draft.channels.map((part) => ({
          id: part.channelId,
          title: (
            <>
              {part.name} <PartTag state={part.state} />
              <ToSettle count={findingsOn(part, draft.shared, checked).filter(({ severity }) => severity === 'must').length} />
            </>
          ),
          content: (
            <ChannelEditor
              piece={piece}
              part={part}
              shared={draft.shared}
              readOnly={readOnly}
              checked={checked}
              channels={draft.channels}
              onChange={(...parts) =>
                change({
                  ...draft,
                  channels: draft.channels.map((other) => parts.find(({ channelId }) => channelId === other.channelId) ?? other),
                })
              }
            />
          ),
        }))}
      />
      {work.theirs && (
        <ConflictDialog
          mine={draft}
          theirs={work.theirs.content}
          onTheirs={work.takeTheirs}
          onMine={() => void work.keepMine()}
          onClose={work.closeConflict}
        />
      )}
    </section>
  );
}

/** The pages that the saved content leads to, over all its channels. */
function linksOfPiece({ shared, channels }: PieceShape['content']): string[] {
  const content: Content = { shared, channels: Object.fromEntries(channels.map((part) => [part.channelId, part])) };
  return [...new Set(channels.flatMap(({ channelId }) => linksOn(content, channelId)))];
}

/** How much keeps a channel's part from going out. */
function ToSettle({ count }: { count: number }) {
  if (count === 0) return null;
  return (
    <Tag tone="rhubarb">
      {count}
      <span className="sr-only"> to settle before it goes out</span>
    </Tag>
  );
}
