import type { GuidelineShape, UploadShape } from '@zesting/contract';
import { ImagePlus } from 'lucide-react';
import { call, upload } from '../lib/api';
import { useWrite } from '../lib/queries';
import { PickFiles } from '../ui/pick-files';
import { Picture } from '../ui/picture';

interface GuidelinePicturesProps {
  readonly guideline: Pick<GuidelineShape, 'id' | 'title' | 'pictures'>;
  /** whether pictures are put to it and taken off here */
  readonly canEdit?: boolean;
}

/** The pictures that show how it is made; each opens in full. */
export function GuidelinePictures({ guideline: { id, title, pictures }, canEdit = false }: GuidelinePicturesProps) {
  const add = useWrite(async (files: readonly File[]) => {
    // one after another: they stand in the order in which they were chosen
    for (const file of files) await upload<UploadShape>(`/guidelines/${id}/pictures`, file);
  });
  const remove = useWrite((assetId: string) => call(`/guidelines/${id}/pictures/${assetId}`, { method: 'DELETE' }));
  const at = (assetId: string): string => `/api/guidelines/${id}/pictures/${assetId}`;
  return (
    <>
      {pictures.length > 0 && (
        <ul className="flex flex-wrap gap-2 mt-2" aria-label={`Pictures of ${title}`}>
          {pictures.map(({ assetId, name }) => (
            <li key={assetId} className="min-w-0">
              <a href={at(assetId)} target="_blank" rel="noreferrer" title={name} className="block">
                <Picture
                  src={`${at(assetId)}?width=480`}
                  alt={name}
                  className="h-28 min-w-16 max-w-full object-contain bg-sunk rounded-md border border-line"
                />
              </a>
              {canEdit && (
                <button
                  type="button"
                  className="text-rhubarb underline text-[13px] min-h-[24px]"
                  aria-label={`Take off ${name}`}
                  disabled={remove.isPending}
                  onClick={() => remove.mutate(assetId)}
                >
                  Take off
                </button>
              )}
            </li>
          ))}
        </ul>
      )}
      {canEdit && (
        <PickFiles label={`Pictures of ${title}`} className="mt-2" onPick={(files) => add.mutate(files)}>
          <ImagePlus size={15} aria-hidden /> {add.isPending ? 'Bringing…' : 'Add pictures'}
        </PickFiles>
      )}
    </>
  );
}
