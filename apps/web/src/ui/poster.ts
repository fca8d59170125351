import type { MediumShape } from '@zesting/contract';

/** Where the picture is that stands for a clip before it plays; undefined where none was chosen. */
export function posterOf(
  { cover }: Pick<MediumShape, 'cover'>,
  media: readonly MediumShape[],
  addressOf: (medium: MediumShape) => string,
): string | undefined {
  const picture = media.find(({ hash }) => hash === cover);
  return picture && addressOf(picture);
}
