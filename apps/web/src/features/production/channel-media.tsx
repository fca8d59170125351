import type { ChannelContentShape, MediumShape } from '@zesting/contract';
import { cropAround, cutsOff, frameOn, mediaShown, usualMedia, type Crop } from '@zesting/core';
import { ArrowDown, ArrowUp, Crop as CropIcon } from 'lucide-react';
import { useId, useState } from 'react';
import { count } from '../../lib/format';
import { Button, IconButton } from '../../ui/button';
import { Framed } from '../../ui/framed';
import { CropDialog } from './crop-dialog';

interface ChannelMediaProps {
  readonly part: ChannelContentShape;
  readonly media: readonly MediumShape[];
  /** all channels of the piece */
  readonly channels: readonly ChannelContentShape[];
  readonly readOnly: boolean;
  readonly onChange: (parts: readonly ChannelContentShape[]) => void;
}

const isPicture = ({ mime }: MediumShape): boolean => mime.startsWith('image/');

/** A picture’s size, where it can be cut. */
const sizeOf = (medium: MediumShape) =>
  isPicture(medium) && medium.width && medium.height ? { width: medium.width, height: medium.height } : null;

/** A part with one picture cut otherwise; null: not at all. */
function withCrop(part: ChannelContentShape, hash: string, crop: Crop | null): ChannelContentShape {
  const { [hash]: _, ...rest } = part.crops ?? {};
  return { ...part, crops: crop ? { ...rest, [hash]: crop } : rest };
}

/** Whether a channel cuts a picture at its middle, since it has none of its shapes. */
function cutsItself({ rules, crops }: ChannelContentShape, medium: MediumShape): boolean {
  const size = sizeOf(medium);
  return size !== null && !crops?.[medium.hash] && cutsOff(size, rules);
}

/** Which pictures and clips go out on a channel, in which order, and how each is cut. */
export function ChannelMedia({ part, media, channels, readOnly, onChange }: ChannelMediaProps) {
  const id = useId();
  const [cutting, setCutting] = useState<MediumShape | null>(null);
  const shown = mediaShown(media, part);
  const rows = [
    ...shown,
    ...media.filter(({ hash }) => !shown.some((medium) => medium.hash === hash)).map((medium) => ({ ...medium, crop: null })),
  ];
  const uncut = shown.filter((medium) => cutsItself(part, medium));
  const others = channels.filter((other) => other.channelId !== part.channelId && other.rules.cutsMedia);
  /** All as they stand, but for covers, need no choice. */
  const choose = (hashes: readonly string[]) => {
    const { media: _, ...rest } = part;
    const usual = usualMedia(media).map(({ hash }) => hash);
    onChange([hashes.join() === usual.join() ? rest : { ...rest, media: [...hashes] }]);
  };
  const swap = (from: number, to: number) => {
    const hashes = shown.map(({ hash }) => hash);
    const [moved] = hashes.splice(from, 1);
    if (moved !== undefined) hashes.splice(to, 0, moved);
    choose(hashes);
  };
  if (media.length === 0) return null;
  const size = cutting && sizeOf(cutting);
  return (
    <div className="mb-3.5">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1 mb-1">
        <p className="font-medium" id={id}>
          Pictures and clips here
        </p>
        {!readOnly && uncut.length > 0 && (
          <Button onClick={() => onChange([uncut.reduce((next, { hash }) => withCrop(next, hash, cropAround(part.rules.ratio)), part)])}>
            <CropIcon size={15} aria-hidden /> Cut {count(uncut.length, 'picture')} to {part.rules.ratio}
          </Button>
        )}
      </div>
      <ul aria-labelledby={id} className="divide-y divide-line border-y border-line">
        {rows.map((medium, index) => {
          const isShown = index < shown.length;
          return (
            <li key={medium.hash} className="flex items-center gap-2.5 py-1.5 min-w-0">
              <label className="flex items-center gap-2.5 min-w-0 flex-1">
                <input
                  type="checkbox"
                  className="size-4 accent-pine shrink-0"
                  checked={isShown}
                  disabled={readOnly}
                  onChange={({ target }) => {
                    const hashes = shown.map(({ hash }) => hash);
                    choose(target.checked ? [...hashes, medium.hash] : hashes.filter((hash) => hash !== medium.hash));
                  }}
                />
                <span className="w-11 shrink-0 grid place-items-center">
                  {isPicture(medium) ? (
                    <Framed frame={frameOn(medium, part.rules)} src={`/api/files/${medium.assetId}?width=160`} alt="" side={44} />
                  ) : (
                    <span className="text-muted text-[11px]">{medium.mime.split('/')[0] === 'audio' ? 'sound' : 'clip'}</span>
                  )}
                </span>
                <span className="min-w-0">
                  <span className="block truncate text-[13px]" title={medium.name}>
                    {medium.name}
                  </span>
                  <span className={`block text-[12px] ${isShown && cutsItself(part, medium) ? 'text-rind' : 'text-muted'}`}>
                    {stateWords(part, medium, isShown)}
                  </span>
                </span>
              </label>
              {!readOnly && isShown && (
                <span className="flex shrink-0">
                  {sizeOf(medium) && (
                    <IconButton label={`Cut ${medium.name}`} onClick={() => setCutting(medium)}>
                      <CropIcon size={15} aria-hidden />
                    </IconButton>
                  )}
                  {shown.length > 1 && (
                    <>
                      <IconButton label={`${medium.name} earlier here`} disabled={index === 0} onClick={() => swap(index, index - 1)}>
                        <ArrowUp size={15} aria-hidden />
                      </IconButton>
                      <IconButton
                        label={`${medium.name} later here`}
                        disabled={index === shown.length - 1}
                        onClick={() => swap(index, index + 1)}
                      >
                        <ArrowDown size={15} aria-hidden />
                      </IconButton>
                    </>
                  )}
                </span>
              )}
            </li>
          );
        })}
      </ul>
      {cutting && size && (
        <CropDialog
          medium={cutting}
          size={size}
          part={part}
          others={others}
          onClose={() => setCutting(null)}
          onCut={(crop, isAlike) => {
            const { hash } = cutting;
            onChange([
              withCrop(part, hash, crop),
              ...(crop && isAlike ? others.map((other) => withCrop(other, hash, cropAround(other.rules.ratio, crop))) : []),
            ]);
            setCutting(null);
          }}
        />
      )}
    </div>
  );
}

function stateWords(part: ChannelContentShape, medium: MediumShape & { readonly crop: Crop | null }, isShown: boolean): string {
  if (!isShown) return 'Does not go out here';
  if (medium.crop) return `Cut to ${medium.crop.ratio}`;
  if (cutsItself(part, medium)) return `The channel will cut it to ${part.rules.ratio}`;
  return isPicture(medium) ? 'Goes out whole' : 'Goes out as it is';
}
