import type { MediumShape } from '@zesting/contract';
import type { RefObject, SyntheticEvent } from 'react';
import type { Frame } from '@zesting/core';
import { Framed } from './framed';
import { Picture } from './picture';

interface PreviewProps {
  readonly medium: MediumShape;
  readonly frame: Frame;
  readonly source: string;
  /** where the picture is that stands for a clip before it plays */
  readonly poster?: string | undefined;
  /** takes the clip or sound, where it is one */
  readonly clip?: RefObject<HTMLMediaElement | null>;
  /** hears of every moment that a clip comes to, in seconds */
  readonly onTime?: (seconds: number) => void;
}

/** A picture or clip as it is seen in its frame. */
export function Preview({ medium, frame, source, poster, clip, onTime }: PreviewProps) {
  const style = { aspectRatio: `${frame.shape.width} / ${frame.shape.height}` };
  if (medium.mime.startsWith('image/'))
    return (
      <Framed
        frame={frame}
        src={`${source}?width=1080`}
        srcSet={`${source}?width=480 480w, ${source}?width=1080 1080w, ${source}?width=1920 1920w`}
        sizes="(min-width: 640px) 340px, 100vw"
        alt={medium.alt}
      />
    );
  const hear = (event: SyntheticEvent<HTMLMediaElement>) => onTime?.(event.currentTarget.currentTime);
  if (medium.mime.startsWith('audio/'))
    return (
      <>
        {poster && <Picture src={`${poster}?width=1080`} alt="" className="w-full rounded-t-md" />}
        <audio
          ref={clip as RefObject<HTMLAudioElement | null>} // what is asked of it every clip has
          src={source}
          controls
          preload="metadata"
          aria-label={medium.alt || medium.name}
          onTimeUpdate={hear}
          onSeeked={hear}
          className="w-full"
        />
      </>
    );
  if (medium.mime.startsWith('video/'))
    return (
      <video
        ref={clip as RefObject<HTMLVideoElement | null>} // what is asked of it every clip has
        src={source}
        poster={poster && `${poster}?width=1080`}
        onTimeUpdate={hear}
        onSeeked={hear}
        controls
        preload="metadata"
        aria-label={medium.alt || medium.name}
        style={style}
        className="w-full object-cover rounded-md bg-sunk"
      />
    );
  return (
    <a href={source} className="block card p-3 text-pine underline" download>
      {medium.name}
    </a>
  );
}
