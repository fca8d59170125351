import { fileKindOf, MATERIAL_SORTS, type MaterialSort } from '@zesting/core';
import type { MaterialShape, MediumShape, UploadShape } from '@zesting/contract';

/** What material is to the makers, one and many. */
export const SORT_WORDS: Record<MaterialSort, readonly [one: string, many: string]> = {
  original: ['an original', 'Originals'],
  working: ['a working file', 'Working files'],
  reference: ['a reference', 'References'],
  transcript: ['a transcript', 'Transcripts'],
};

/** What a thing is called: its label, else the file’s name, the address without its scheme, or how the words begin. */
export function materialName({ label, file, url, text }: Pick<MaterialShape, 'label' | 'file' | 'url' | 'text'>): string {
  if (label !== '') return label;
  if (file) return file.name;
  if (url !== null) return url.replace(/^https?:\/\//, '').replace(/\/$/, '');
  const [line = ''] = (text ?? '').split('\n');
  return line.length > 60 ? `${line.slice(0, 60).trimEnd()}…` : line;
}

/** By sort, in their order; sorts of which there is nothing are left out. */
export const bySort = (material: readonly MaterialShape[]): (readonly [MaterialSort, MaterialShape[]])[] =>
  MATERIAL_SORTS.flatMap((sort) => {
    const ofIt = material.filter((one) => one.sort === sort);
    return ofIt.length > 0 ? [[sort, ofIt] as const] : [];
  });

/** Pictures, clips and sounds among files that do not stand in the content yet, each once. */
export const filesToTake = (files: readonly UploadShape[], media: readonly Pick<MediumShape, 'assetId'>[]): UploadShape[] =>
  files.filter(
    ({ assetId, mime }, index) =>
      fileKindOf(mime) !== 'paper' &&
      !media.some((medium) => medium.assetId === assetId) &&
      files.findIndex((other) => other.assetId === assetId) === index,
  );
