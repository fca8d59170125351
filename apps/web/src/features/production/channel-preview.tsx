import type { ChannelContentShape, ChannelLooksShape, MediumShape } from '@zesting/contract';
import { foldText, frameOn, laidOutOn, mediaOn, textOn, type Content } from '@zesting/core';
import { useState } from 'react';
import { tagWords } from '../../lib/tags';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Dialog } from '../../ui/dialog';
import { Preview } from '../../ui/preview';
import { posterOf } from '../../ui/poster';
import { Prose } from '../../ui/prose';

interface ChannelPreviewProps {
  readonly part: ChannelContentShape;
  readonly media: readonly MediumShape[];
  readonly content: Content;
}

const addressOf = ({ assetId }: MediumShape): string => `/api/files/${assetId}`;

/** What goes out on a channel, as it is seen there: pictures as they are cut, text as it is folded. */
export function ChannelPreview({ part, media, content, isWide = false }: ChannelPreviewProps & { isWide?: boolean }) {
  const shown = mediaOn(media, part, part.rules);
  const [isOpen, setOpen] = useState(false);
  const laidOut = part.looks.foldsAt === null ? laidOutOn(content, part.channelId) : null;
  const { seen, rest } = foldText(textOn(content, part.channelId), part.looks.foldsAt);
  return (
    <>
      {shown.length === 0 ? (
        <div className="bg-sunk rounded-md grid place-items-center text-muted text-[13px] min-h-28">No picture</div>
      ) : (
        <div className={`grid gap-2 ${isWide && shown.length > 1 ? 'grid-cols-2' : ''}`}>
          {shown.map((medium) => (
            <div key={medium.assetId} className="relative">
              <Preview
                medium={medium}
                frame={frameOn(medium, part.rules)}
                source={addressOf(medium)}
                poster={posterOf(medium, media, addressOf)}
              />
              {!medium.mime.startsWith('audio/') && <Covered looks={part.looks} />}
            </div>
          ))}
        </div>
      )}
      {laidOut === null ? (
        <p className="mt-2 whitespace-pre-wrap break-words text-[13px]">
          {seen}
          {rest !== '' && isOpen && rest}
          {rest !== '' && (
            <>
              {!isOpen && '… '}
              <button type="button" className="text-pine underline min-h-6" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
                {isOpen ? 'fold it' : 'folded here'}
              </button>
            </>
          )}
        </p>
      ) : (
        <div className="mt-2 text-[13px]">
          <Prose source={laidOut} />
          <p>{content.shared.disclosure}</p>
        </div>
      )}
      {part.tags.length > 0 && <p className="text-lake text-[13px] break-words">{tagWords(part.tags)}</p>}
      {part.link.trim() !== '' && <p className="text-lake text-[13px] underline break-all">{part.link}</p>}
      {part.firstComment.trim() !== '' && (
        <p className="mt-2 pl-3 border-l-4 border-line text-[13px] break-words">First comment: {part.firstComment}</p>
      )}
    </>
  );
}

/** What the channel lays its own signs over: nothing that matters should stand there. */
function Covered({ looks: { safeTop, safeBottom, safeSides } }: { looks: ChannelLooksShape }) {
  if (safeTop + safeBottom + safeSides === 0) return null;
  const band = 'covered absolute';
  return (
    <span
      className="absolute inset-0 rounded-md overflow-hidden pointer-events-none"
      role="img"
      aria-label="What the channel’s own signs cover"
    >
      {safeTop > 0 && <span className={`${band} inset-x-0 top-0`} style={{ height: `${safeTop}%` }} />}
      {safeBottom > 0 && <span className={`${band} inset-x-0 bottom-0`} style={{ height: `${safeBottom}%` }} />}
      {safeSides > 0 &&
        (['left-0', 'right-0'] as const).map((side) => (
          <span key={side} className={`${band} ${side}`} style={{ width: `${safeSides}%`, top: `${safeTop}%`, bottom: `${safeBottom}%` }} />
        ))}
    </span>
  );
}

/** The same by itself: as narrow as a phone, or as wide as a page. */
export function PreviewDialog({ onClose, ...preview }: ChannelPreviewProps & { onClose: () => void }) {
  const [width, setWidth] = useState<'narrow' | 'wide'>('narrow');
  return (
    <Dialog open wide onClose={onClose} title={`As it goes out on ${preview.part.name}`}>
      <div className="mb-3">
        <Choice
          label="How wide"
          value={width}
          options={[
            ['narrow', 'Narrow'],
            ['wide', 'Wide'],
          ]}
          onChange={setWidth}
        />
      </div>
      <div className={`mx-auto card bg-paper p-3 ${width === 'narrow' ? 'max-w-[22rem]' : ''}`}>
        <ChannelPreview {...preview} isWide={width === 'wide'} />
      </div>
      <p className="flex justify-end mt-4">
        <Button onClick={onClose}>Close it</Button>
      </p>
    </Dialog>
  );
}
