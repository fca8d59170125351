import type { IdeaPageShape } from '@zesting/contract';
import { Camera } from 'lucide-react';
import { useRef } from 'react';
import { call } from '../../lib/api';
import { useTouched, useWrite } from '../../lib/queries';
import { useUploads } from '../../lib/use-uploads';
import { FileList } from '../../ui/answers';
import { Button } from '../../ui/button';
import { UploadList } from '../../ui/upload-list';

interface IdeaFilesProps {
  readonly ideaId: string;
  readonly files: IdeaPageShape['attached'];
  readonly canRemove?: boolean;
}

/** Pictures, sounds and other files of an idea; on a phone also what its camera takes. */
export function IdeaFiles({ ideaId, files, canRemove = false }: IdeaFilesProps) {
  const input = useRef<HTMLInputElement>(null);
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
      <input
        ref={input}
        type="file"
        multiple
        className="sr-only"
        tabIndex={-1}
        aria-label="Files of the idea"
        onChange={(event) => {
          uploads.add([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
      <Button className="mt-1" onClick={() => input.current?.click()}>
        <Camera size={15} aria-hidden /> Picture, sound or file
      </Button>
    </>
  );
}
