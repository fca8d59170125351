import { fileKindOf } from '@zesting/core';
import { useEffect } from 'react';
import { useLanguage } from '../language/language';
import { bytesWords } from '../lib/format';
import { useUploads } from '../lib/use-uploads';
import type { Control } from '../ui/field';
import { Picture } from '../ui/picture';
import { UploadList } from '../ui/upload-list';
import type { AskedFieldProps } from './asked-field';

const ACCEPTED = { picture: 'image/*', clip: 'video/*', sound: 'audio/*', paper: '.pdf,.txt,.docx,.xlsx,.pptx,.csv' } as const;

interface FilesProps extends Pick<AskedFieldProps, 'field' | 'files' | 'uploadTo' | 'onAnswer' | 'onFile' | 'onUnderWay'> {
  readonly control: Control;
  readonly ids: readonly string[];
  /** whether what was sent can be looked at where it was sent to */
  readonly showsPictures?: boolean;
}

/** Files for a question: sent at once in parts, shown with a small picture, to be taken out again. */
export function FilesInput({ field, ids, files, uploadTo, control, showsPictures = false, onAnswer, onFile, onUnderWay }: FilesProps) {
  const { t } = useLanguage();
  const uploads = useUploads(uploadTo ?? '', (file) => onFile(field.key, file));
  const underWay = uploads.list.filter((one) => one.state !== 'refused').length;
  useEffect(() => onUnderWay(field.key, underWay), [onUnderWay, field.key, underWay]);
  const accept = field.fileKinds?.map((kind) => ACCEPTED[kind]).join(',');
  return (
    <>
      <input
        {...control}
        type="file"
        multiple={field.max !== 1}
        {...(accept ? { accept } : {})}
        disabled={uploadTo === null}
        className="field py-2 file:mr-3 file:rounded-md file:border-0 file:bg-sunk file:text-ink file:px-3 file:py-1"
        onChange={(event) => {
          uploads.add([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
      <UploadList uploads={uploads} />
      <ul>
        {ids.map((id) => {
          const file = files[id];
          return (
            <li key={id} className="flex items-center gap-3 min-h-12 sm:min-h-10 border-t border-line first:border-t-0">
              {file && fileKindOf(file.mime) === 'picture' && showsPictures && uploadTo !== null && (
                <Picture
                  src={`/api${uploadTo.replace(/\/uploads$/, '')}/files/${id}?width=160`}
                  alt=""
                  className="size-10 object-cover rounded-sm border border-line"
                />
              )}
              <span className="truncate">{file?.name ?? t('A file')}</span>
              {file && <span className="text-muted text-[13px] tabular whitespace-nowrap">{bytesWords(file.bytes)}</span>}
              <button
                type="button"
                className="text-pine underline min-h-11 sm:min-h-6 ml-auto"
                onClick={() => onAnswer(ids.filter((other) => other !== id))}
              >
                {t('Take out')}
                <span className="sr-only"> {file?.name}</span>
              </button>
            </li>
          );
        })}
      </ul>
    </>
  );
}
