import type { MediumShape, RoomChannelShape, RoomPieceShape, RoomShape } from '@zesting/contract';
import { frameOn, mediaOn, wholeFrame, withCovers, type Pointed } from '@zesting/core';
import { useState } from 'react';
import { dayWords } from '../lib/format';
import { CoverWords, isIn, MarkedMedium, MarkedText, SlidePicture, type Mark } from '../ui/places';
import { posterOf } from '../ui/poster';
import { Tag } from '../ui/tags';
import { Decide, type DecideStep } from './decide';
import { Notes, Replies } from './notes';
import { FIRST, pointedAt, wishedFor, type Wanted } from './wanted';

/** A room as its contact sees it, or as the agency looks at it: then files come by the agency's own session. */
export type ShownRoom = RoomShape & { readonly isView?: boolean };

interface RoomPieceProps {
  readonly piece: RoomPieceShape;
  readonly room: ShownRoom;
  readonly isLocked: boolean;
  readonly onDecided: () => void;
}

/** One piece as it will appear on each channel, what was said about it, and the contact's word. */
export function RoomPiece({ piece, room, isLocked, onDecided }: RoomPieceProps) {
  const [shown, setShown] = useState(0);
  const [step, setStep] = useState<DecideStep>('choose');
  const [wanted, setWanted] = useState<readonly Wanted[]>([FIRST]);
  const channel = piece.channels[shown];
  const canDecide = room.canDecide && !isLocked;
  const canAsk = canDecide && piece.outcome === null && piece.isAsked && piece.mine !== 'approve';
  const isPointing = canAsk && step === 'changes';
  const rather = (wish: string) => {
    setStep('changes');
    setWanted(wishedFor(wanted, wish));
  };
  return (
    <article className="card p-4" aria-label={piece.title}>
      <h3 className="text-lg break-words">{piece.title}</h3>
      <p className="text-muted text-[13px] mb-3">
        {piece.formatName}
        {piece.round > 1 && ` · round ${piece.round} of ${piece.roundsAgreed} agreed`}
      </p>
      {piece.channels.length > 1 && (
        <div role="group" aria-label="As on" className="flex flex-wrap gap-2 mb-3">
          {piece.channels.map((choice, index) => (
            <button
              key={choice.name}
              type="button"
              aria-pressed={index === shown}
              onClick={() => setShown(index)}
              className={`min-h-11 sm:min-h-8 px-3 rounded-md border ${index === shown ? 'bg-pine text-on-pine border-pine' : 'border-line-strong'}`}
            >
              {choice.name}
            </button>
          ))}
        </div>
      )}
      {channel && (
        <Appearance
          piece={piece}
          channel={channel}
          room={room}
          marks={isPointing ? wantedMarks(piece, wanted) : noteMarks(piece)}
          onPick={isPointing ? (place) => setWanted(pointedAt(wanted, place)) : undefined}
          onRather={canAsk ? rather : undefined}
        />
      )}
      <Notes piece={piece} room={room} onSaid={onDecided} />
      <ToDo piece={piece} />
      <Said piece={piece} />
      {piece.said.length > 0 && (
        <p className="mt-2 text-[13px] no-print">
          <a
            href={
              room.isView
                ? `/api/pieces/${piece.pieceId}/sign-off-record`
                : `/api/room/${room.contactId}/pieces/${piece.pieceId}/sign-off-record`
            }
            className="text-pine underline inline-flex items-center min-h-11 sm:min-h-6"
            download
          >
            Sign-off record (PDF)
          </a>
        </p>
      )}
      {canDecide && (
        <Decide
          piece={piece}
          contactId={room.contactId}
          step={step}
          onStep={setStep}
          wanted={wanted}
          onWanted={setWanted}
          onDecided={onDecided}
        />
      )}
    </article>
  );
}

/** What the agency wrote, at its places in this version. */
const noteMarks = (piece: RoomPieceShape): Mark[] =>
  piece.notes.flatMap(({ id, place }, index) => (place ? [{ id, number: index + 1, place, isDone: false, isChosen: false }] : []));

/** What is being asked for, at the places that were pointed at. */
function wantedMarks(piece: RoomPieceShape, wanted: readonly Wanted[]): Mark[] {
  return wanted.flatMap(({ key, place }, index): Mark[] => {
    if (place === null) return [];
    const mark = { id: String(key), number: index + 1, isDone: false, isChosen: false };
    if (place.kind !== 'stretch') return [{ ...mark, place: { ...place, number: 1 } }];
    const { textKey } = place;
    if (textKey !== undefined)
      return [{ ...mark, place: { ...place, onText: piece.texts.find(({ key }) => key === textKey)?.text ?? '' } }];
    const on = piece.channels.find(({ copyOf }) => copyOf === place.channelId);
    return [{ ...mark, place: { ...place, onText: on?.copy ?? '', isLaidOut: on?.isLaidOut === true } }];
  });
}

interface AppearanceProps {
  readonly piece: RoomPieceShape;
  readonly channel: RoomChannelShape;
  readonly room: ShownRoom;
  readonly marks: readonly Mark[];
  readonly onPick: ((pointed: Pointed) => void) | undefined;
  /** another wording is wanted, said in words; undefined: nobody may say so here and now */
  readonly onRather: ((wish: string) => void) | undefined;
}

function Appearance({ piece, channel, room, marks, onPick, onRather }: AppearanceProps) {
  const numberOf = ({ assetId }: MediumShape) => piece.media.findIndex((medium) => medium.assetId === assetId) + 1;
  const sourceOf = ({ assetId }: MediumShape) => (room.isView ? `/api/files/${assetId}` : `/api/room/${room.contactId}/files/${assetId}`);
  // what nobody can see cannot be approved
  const seenOn = (each: RoomChannelShape) => withCovers(mediaOn(piece.media, each, each.rules), piece.media, each);
  const onAny = new Set(piece.channels.flatMap((each) => seenOn(each).map(({ assetId }) => assetId)));
  const unseen = piece.media.filter(({ assetId }) => !onAny.has(assetId));
  return (
    <div className={`border rounded-md p-3 bg-paper ${onPick ? 'border-lake' : 'border-line'}`}>
      <p className="text-muted text-[13px] mb-2">
        {channel.name}
        {channel.on && `, ${dayWords(channel.on)}${channel.at ? ` at ${channel.at}` : ''}`}
      </p>
      {onPick && (
        <p role="status" className="text-lake text-[13px] mb-2 no-print">
          Tap what you mean: a sentence, a part of a picture, a moment of a clip. Or write about the whole below.
        </p>
      )}
      {piece.media.length > 0 && piece.outcome !== 'approved' && (
        <p className="mb-2">
          <Tag tone="lake">Not approved yet</Tag>{' '}
          <span className="text-muted text-[13px]">A copy that you download carries these words.</span>
        </p>
      )}
      <div className="grid gap-2">
        {seenOn(channel).map((medium) => (
          <div key={`${medium.assetId} ${medium.coverOf}`}>
            <CoverWords medium={medium} />
            <MarkedMedium
              medium={medium}
              number={numberOf(medium)}
              frame={frameOn(medium, channel.rules)}
              source={sourceOf(medium)}
              poster={posterOf(medium, piece.media, sourceOf)}
              marks={marks}
              onPick={onPick}
            />
          </div>
        ))}
      </div>
      {unseen.length > 0 && (
        <>
          <p className="text-muted text-[13px] mt-3 mb-1">Belongs to the piece too, and goes out on none of its channels yet:</p>
          <div className="grid grid-cols-2 gap-2">
            {unseen.map((medium) => (
              <MarkedMedium
                key={medium.assetId}
                medium={medium}
                number={numberOf(medium)}
                frame={wholeFrame(medium)}
                source={sourceOf(medium)}
                marks={marks}
                onPick={onPick}
              />
            ))}
          </div>
        </>
      )}
      {piece.texts.map(({ key, name, text, isSlides, others }) => (
        <div key={key} className="mt-3">
          <p className="text-muted text-[13px]">{name}</p>
          <div className="font-medium">
            <MarkedText
              text={text}
              slide={isSlides ? (number) => <SlidePicture number={number} media={piece.media} sourceOf={sourceOf} /> : undefined}
              channelId={null}
              textKey={key}
              marks={marks.filter(isIn(null, key))}
              onPick={onPick}
            />
          </div>
          {others.map((wording) => (
            <p key={wording} className="text-[13px] break-words">
              <span className="text-muted">or:</span> {wording}{' '}
              {onRather && (
                <button
                  type="button"
                  className="text-pine underline min-h-11 sm:min-h-6 no-print"
                  aria-label={`Rather this: ${wording}`}
                  onClick={() => onRather(`${name}: rather “${wording}”`)}
                >
                  Rather this
                </button>
              )}
            </p>
          ))}
        </div>
      ))}
      <div className="mt-3 mb-1">
        <MarkedText
          text={channel.copy}
          isLaidOut={channel.isLaidOut}
          under={3}
          channelId={channel.copyOf}
          marks={marks.filter(isIn(channel.copyOf))}
          onPick={onPick}
        />
      </div>
      {channel.tags.length > 0 && <p className="text-lake break-words">{channel.tags.map((tag) => `#${tag}`).join(' ')}</p>}
      {channel.link && <p className="text-lake underline break-all">{channel.link}</p>}
      {piece.disclosure && <p className="text-muted text-[13px]">{piece.disclosure}</p>}
      {channel.firstComment && <p className="mt-2 pl-3 border-l-4 border-line text-[13px]">First comment: {channel.firstComment}</p>}
    </div>
  );
}

/** What was asked for before, and what came of it in this version. */
function ToDo({ piece }: { piece: RoomPieceShape }) {
  if (piece.remarks.length === 0) return null;
  return (
    <section aria-label="What was asked for" className="mt-3 rounded-md bg-sunk px-3 py-2">
      <p className="font-medium">What was asked for, and what came of it</p>
      <ul className="text-[13px] grid gap-1.5 mt-1">
        {piece.remarks.map((remark) => (
          <li key={remark.id} className="break-words">
            <Tag tone={remark.state === 'settled' ? 'pine' : 'lake'}>{remark.state === 'settled' ? 'Done' : 'Answered'}</Tag>{' '}
            {remark.where && <span className="text-muted">{remark.where}: </span>}
            {remark.text}
            {remark.answer && <span className="block pl-3 border-l-4 border-line mt-0.5">{remark.answer}</span>}
            <Replies thread={remark} />
          </li>
        ))}
      </ul>
    </section>
  );
}

function Said({ piece }: { piece: RoomPieceShape }) {
  if (piece.said.length === 0) return null;
  return (
    <ul className="mt-3 grid gap-2">
      {piece.said.map((remark, index) => (
        <li key={index} className="text-[13px]">
          <strong>{remark.contactName}</strong>{' '}
          <Tag tone={remark.verdict === 'approve' ? 'pine' : 'rind'}>{remark.verdict === 'approve' ? 'approved' : 'asked for changes'}</Tag>
          {remark.remark && <span className="block break-words whitespace-pre-wrap">{remark.remark}</span>}
        </li>
      ))}
    </ul>
  );
}
