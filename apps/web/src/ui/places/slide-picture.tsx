import type { MediumShape } from '@zesting/contract';
import { usualMedia } from '@zesting/core';
import { Picture } from '../picture';

interface SlidePictureProps {
  readonly number: number;
  /** of the piece, in their order */
  readonly media: readonly MediumShape[];
  readonly sourceOf: (medium: MediumShape) => string;
}

/** The number of a slide on the picture of its place; where there is none yet, on an empty one. */
export function SlidePicture({ number, media, sourceOf }: SlidePictureProps) {
  const medium = usualMedia(media)[number - 1];
  const isPicture = medium?.mime.startsWith('image/') === true;
  return (
    <span className="relative block size-16 shrink-0">
      {medium && isPicture ? (
        <Picture src={`${sourceOf(medium)}?width=160`} alt="" className="size-16 object-cover rounded-md border border-line" />
      ) : (
        <span className="size-16 grid place-items-end rounded-md border border-dashed border-line-strong p-1 text-[11px] leading-tight text-muted text-right">
          {medium ? (medium.mime.split('/')[0] ?? '') : 'no picture yet'}
        </span>
      )}
      <span className="absolute left-0.5 top-0.5 min-w-5 text-center rounded bg-card/90 border border-line text-[12px] leading-[18px] font-semibold">
        {number}
      </span>
    </span>
  );
}
