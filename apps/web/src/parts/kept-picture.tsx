import type { OfferedKeptFileShape } from '@zesting/contract';
import { FileText } from 'lucide-react';
import { Picture } from '../ui/picture';

interface KeptPictureProps {
  readonly file: Pick<OfferedKeptFileShape, 'mime' | 'about'>;
  /** where its picture is */
  readonly src: string;
  /** its size, and how it fits in there */
  readonly className: string;
}

/** How a kept file looks: its picture, or a sheet where it has none. */
export function KeptPicture({ file, src, className }: KeptPictureProps) {
  return file.mime.startsWith('image/') ? (
    <Picture src={src} alt={file.about} loading="lazy" className={`bg-sunk ${className}`} />
  ) : (
    <span aria-hidden className={`bg-sunk grid place-items-center text-muted ${className}`}>
      <FileText size={30} />
    </span>
  );
}
