import { Image } from 'lucide-react';
import { Picture } from './picture';

/** A small picture of a piece, so that one looks rather than reads; a quiet ground where it has none yet. */
export function Thumbnail({ pictureId, size = 40 }: { pictureId: string | null; size?: number }) {
  const style = { width: size, height: size };
  return pictureId ? (
    <Picture
      src={`/api/files/${pictureId}?width=160`}
      alt=""
      style={style}
      loading="lazy"
      className="shrink-0 object-cover rounded-md bg-sunk"
    />
  ) : (
    <span aria-hidden style={style} className="shrink-0 grid place-items-center rounded-md bg-sunk text-line-strong">
      <Image size={Math.round(size * 0.4)} />
    </span>
  );
}
