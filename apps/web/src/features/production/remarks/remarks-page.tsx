import { useSuspenseQuery } from '@tanstack/react-query';
import type { MediumShape, PieceShape } from '@zesting/contract';
import { frameOn, mediaShown, wholeFrame, withCovers, type Pointed } from '@zesting/core';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { pieceQuery, remarksQuery } from '../../../api/production';
import { useSearch } from '../../../lib/use-search';
import { buttonClass } from '../../../ui/button';
import { Empty, PageHead } from '../../../ui/page';
import { CoverWords, isIn, MarkedMedium, MarkedText, SlidePicture, type Mark } from '../../../ui/places';
import { posterOf } from '../../../ui/poster';
import { ComposeRemark, useRemarkDraft } from './compose-remark';
import { contentOf, marksOf, placed } from './remark-place';
import { RemarkThread } from './remark-thread';

/** A piece as it will appear, with all that was said about it at its places; and the place where more is said. */
export function RemarksPage() {
  const { pieceId = '' } = useParams();
  const { search, put } = useSearch();
  const { data: piece } = useSuspenseQuery(pieceQuery(pieceId));
  const { data } = useSuspenseQuery(remarksQuery(pieceId));
  const work = useRemarkDraft(pieceId);
  const [isPointing, setPointing] = useState(false);
  const [chosenId, setChosenId] = useState<string | null>(search.get('remark'));
  const shown = piece.content.channels.find(({ channelId }) => channelId === search.get('channel')) ?? piece.content.channels[0];
  const remarks = placed(data.remarks, contentOf(piece));
  const point = (place: Pointed) => {
    work.change({ place });
    setPointing(false);
  };
  const choose = (id: string) => {
    setChosenId(id);
    document.getElementById(`remark-${id}`)?.scrollIntoView({ block: 'nearest' });
  };
  return (
    <>
      <PageHead title="Remarks" note={piece.title}>
        <Link to={`/pieces/${pieceId}`} className={buttonClass()}>
          To the piece
        </Link>
      </PageHead>
      <div className="grid gap-4 items-start lg:grid-cols-[minmax(0,1fr)_minmax(0,440px)]">
        <Appearance
          piece={piece}
          channelId={shown?.channelId ?? null}
          onChannel={(channel) => put({ channel }, { replace: true })}
          marks={marksOf(remarks, chosenId)}
          onChoose={choose}
          onPick={isPointing ? point : undefined}
        />
        <div className="grid gap-4 grid-cols-[minmax(0,1fr)]">
          <ComposeRemark
            pieceId={pieceId}
            shared={piece.content.shared}
            all={data}
            work={work}
            isPointing={isPointing}
            onPoint={setPointing}
          />
          {remarks.length === 0 ? (
            <Empty title="Nobody has said anything yet">What the client asks to have changed, and what the team says, stands here.</Empty>
          ) : (
            <section aria-label="What was said" className="card px-4 py-2">
              <ul>
                {remarks.map((each) => (
                  <RemarkThread
                    key={each.remark.id}
                    placed={each}
                    all={data}
                    canSettle={piece.canWrite}
                    isChosen={each.remark.id === chosenId}
                    onChoose={choose}
                  />
                ))}
              </ul>
            </section>
          )}
        </div>
      </div>
    </>
  );
}

interface AppearanceProps {
  readonly piece: PieceShape;
  readonly channelId: string | null;
  readonly onChannel: (channelId: string) => void;
  readonly marks: readonly Mark[];
  readonly onChoose: (id: string) => void;
  readonly onPick: ((pointed: Pointed) => void) | undefined;
}

/** What is saved of the working copy, as it will appear on a channel. */
function Appearance({ piece, channelId, onChannel, marks, onChoose, onPick }: AppearanceProps) {
  const { shared, channels } = piece.content;
  const channel = channels.find((part) => part.channelId === channelId);
  const shown = withCovers(mediaShown(shared.media, channel), shared.media, channel);
  const addressOf = ({ assetId }: MediumShape) => `/api/files/${assetId}`;
  const isOwn = channel !== undefined && channel.copy.trim() !== '';
  const copy = isOwn ? channel.copy : shared.copy;
  const copyOf = isOwn ? channel.channelId : null;
  const written = shared.texts.filter(({ text }) => text.trim() !== '');
  return (
    <section aria-label="The piece" className="card p-4">
      <div role="group" aria-label="As on" className="flex flex-wrap gap-2 mb-3">
        {channels.map((part) => (
          <button
            key={part.channelId}
            type="button"
            aria-pressed={part.channelId === channelId}
            onClick={() => onChannel(part.channelId)}
            className={`min-h-8 px-3 rounded-md border ${part.channelId === channelId ? 'bg-pine text-on-pine border-pine' : 'border-line-strong'}`}
          >
            {part.name}
          </button>
        ))}
      </div>
      <div className={`grid gap-4 items-start ${shown.length > 0 ? 'md:grid-cols-[minmax(0,5fr)_minmax(0,4fr)]' : ''}`}>
        {shown.length > 0 && (
          <div className="grid gap-2">
            {shown.map((medium) => (
              <div key={`${medium.assetId} ${medium.coverOf}`}>
                <CoverWords medium={medium} />
                <MarkedMedium
                  medium={medium}
                  number={shared.media.findIndex(({ assetId }) => assetId === medium.assetId) + 1}
                  frame={channel ? frameOn(medium, channel.rules) : wholeFrame(medium)}
                  source={addressOf(medium)}
                  poster={posterOf(medium, shared.media, addressOf)}
                  marks={marks}
                  onChoose={onChoose}
                  onPick={onPick}
                />
              </div>
            ))}
          </div>
        )}
        <div className="grid gap-2">
          {written.map(({ key, name, text, isSlides }) => (
            <div key={key}>
              <p className="text-muted text-[13px]">{name}</p>
              <MarkedText
                text={text}
                slide={isSlides ? (number) => <SlidePicture number={number} media={shared.media} sourceOf={addressOf} /> : undefined}
                channelId={null}
                textKey={key}
                marks={marks.filter(isIn(null, key))}
                onChoose={onChoose}
                onPick={onPick}
              />
            </div>
          ))}
          {copy.trim() === '' && written.length === 0 && shown.length === 0 && <p className="text-muted">Nothing is written yet.</p>}
          <MarkedText
            text={copy}
            isLaidOut={!isOwn && shared.isLaidOut}
            under={1}
            channelId={copyOf}
            marks={marks.filter(isIn(copyOf))}
            onChoose={onChoose}
            onPick={onPick}
          />
          {channel && channel.tags.length > 0 && <p className="text-lake break-words">{channel.tags.map((tag) => `#${tag}`).join(' ')}</p>}
          {channel?.firstComment && <p className="pl-3 border-l-4 border-line text-[13px]">First comment: {channel.firstComment}</p>}
          {shared.disclosure && <p className="text-muted text-[13px]">{shared.disclosure}</p>}
        </div>
      </div>
    </section>
  );
}
