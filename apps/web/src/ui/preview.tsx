import type { MediumShape } from '@zesting/contract';
import { Picture } from './picture';

/** A picture or clip at a channel's shape, cut as the channel would cut it. */
export function Preview({ medium, ratio, source }: { medium: MediumShape; ratio: string; source: string }) {
  const [width, height] = ratio.split(':').map(Number);
  const style = { aspectRatio: `${width ?? 1} / ${height ?? 1}` };
  if (medium.mime.startsWith('image/'))
    return (
      <Picture
        src={`${source}?width=1080`}
        srcSet={`${source}?width=480 480w, ${source}?width=1080 1080w, ${source}?width=1920 1920w`}
        sizes="(min-width: 640px) 340px, 100vw"
        alt={medium.alt}
        style={style}
        loading="lazy"
        className="w-full object-cover rounded-md bg-sunk"
      />
    );
  if (medium.mime.startsWith('video/'))
    return (
      <video
        src={source}
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
