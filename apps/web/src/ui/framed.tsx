import { PICTURE_SIDE, type Frame } from '@zesting/core';
import type { ComponentProps } from 'react';
import { Picture } from './picture';

interface FramedProps extends Omit<ComponentProps<typeof Picture>, 'style' | 'className'> {
  readonly frame: Frame;
  /** the longer side in pixels; without it, as wide as there is room */
  readonly side?: number;
}

const share = (part: number): string => `${part * 100}%`;

/** What of a picture its frame keeps, at the frame's shape. */
export function Framed({ frame: { shape, kept }, side, ...picture }: FramedProps) {
  const scale = side === undefined ? undefined : side / Math.max(shape.width, shape.height);
  return (
    <span
      className={`relative block overflow-hidden rounded-md bg-sunk shrink-0 ${scale === undefined ? 'w-full' : ''}`}
      style={
        scale === undefined
          ? { aspectRatio: `${shape.width} / ${shape.height}` }
          : { width: shape.width * scale, height: shape.height * scale }
      }
    >
      <Picture
        loading="lazy"
        {...picture}
        className="absolute max-w-none object-cover"
        style={{
          width: share(PICTURE_SIDE / kept.width),
          height: share(PICTURE_SIDE / kept.height),
          left: share(-kept.x / kept.width),
          top: share(-kept.y / kept.height),
        }}
      />
    </span>
  );
}
