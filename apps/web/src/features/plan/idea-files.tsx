import type { IdeaPageShape } from '@zesting/contract';
import { Camera } from 'lucide-react';
import { call } from '../../lib/api';
import { useTouched, useWrite } from '../../lib/queries';
import { useUploads } from '../../lib/use-uploads';
import { FileList } from '../../ui/answers';
import { PickFiles } from '../../ui/pick-files';
import { UploadList } from '../../ui/upload-list';

interface IdeaFilesProps {
  readonly ideaId: string;
  readonly files: IdeaPageShape['attached'];
  readonly canRemove?: boolean;
}

/** Pictures, sounds and other files of an idea; on a phone also what its camera takes. */
export function IdeaFiles({ ideaId, files, canRemove = false }: IdeaFilesProps) {
  const touched = useTouched();
  const uploads = useUploads(`/ideas/${ideaId}/uploads`, () => touched());
  const remove = useWrite((assetId: string) => call(`/ideas/${ideaId}/files/${assetId}`, { method: 'DELETE' }));
  const own = files.filter((file) => file.ideaId === ideaId);
  return (
    <>
      {files.length > 0 && <FileList files={files} />}
      {canRemove && own.length > 0 && (
        <details className="text-[13px]">
          <summary className="text-muted min-h-6">Take a file off</summary>
          <ul>
            {own.map(({ assetId, name }) => (
              <li key={assetId}>
                <button
                  type="button"
                  className="text-rhubarb underline min-h-6"
                  disabled={remove.isPending}
                  onClick={() => remove.mutate(assetId)}
                >
                  Take off {name}
                </button>
              </li>
            ))}
          </ul>
        </details>
      )}
      <UploadList uploads={uploads} />
      <PickFiles label="Files of the idea" className="mt-1" onPick={uploads.add}>
        <Camera size={15} aria-hidden /> Picture, sound or file
      </PickFiles>
    </>
  );
}
