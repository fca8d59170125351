import { PICTURE_SIDE, type Frame } from '@zesting/core';
import type { ComponentProps } from 'react';
import { Picture } from './picture';

interface FramedProps extends Omit<ComponentProps<typeof Picture>, 'style' | 'className'> {
  readonly frame: Frame;
  /** of the frame; its shape is the frame's own */
  readonly className?: string;
}

const share = (part: number): string => `${part * 100}%`;

/** What of a picture its frame keeps, at the frame's shape: as wide as there is room. */
export function Framed({ frame: { shape, kept }, className = 'w-full rounded-md', ...picture }: FramedProps) {
  return (
    <span className={`relative block overflow-hidden bg-sunk ${className}`} style={{ aspectRatio: `${shape.width} / ${shape.height}` }}>
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
