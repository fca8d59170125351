import type { MediumShape, UploadShape } from '@zesting/contract';
import { ArrowLeft, ArrowRight, ChevronDown, ImagePlus, Trash2 } from 'lucide-react';
import { useId, useRef, type ReactNode } from 'react';
import type { Uploads } from '../../lib/use-uploads';
import { Button, buttonClass, IconButton } from '../../ui/button';
import { Menu, MenuItem } from '../../ui/menu';
import { UploadList } from '../../ui/upload-list';
import { Picture } from '../../ui/picture';
import { ClipCover } from './clip-cover';

interface MediaEditorProps {
  readonly media: readonly MediumShape[];
  readonly readOnly: boolean;
  readonly uploads: Uploads;
  readonly onChange: (media: MediumShape[]) => void;
  /** what could be taken in from the piece’s material and its brief */
  readonly atHand: readonly UploadShape[];
  readonly onTake: (file: UploadShape) => void;
  /** the way to files that are kept for the client */
  readonly library: ReactNode;
}

const isClip = ({ mime }: MediumShape): boolean => /^(video|audio)\//.test(mime);

/** Pictures and clips of the piece in their order, each with its alternative text. */
export function MediaEditor({ media, readOnly, uploads, onChange, atHand, onTake, library }: MediaEditorProps) {
  const input = useRef<HTMLInputElement>(null);
  const id = useId();
  const swap = (from: number, to: number) => {
    const next = [...media];
    const [moved] = next.splice(from, 1);
    if (moved) next.splice(to, 0, moved);
    onChange(next);
  };
  return (
    <div className="mb-3.5">
      <p className="font-medium mb-1" id={id}>
        Pictures and clips
      </p>
      <ul aria-labelledby={id} className="grid grid-cols-[minmax(0,1fr)] gap-2">
        {media.map((medium, index) => (
          <li key={medium.assetId} className="flex gap-3 items-start">
            {medium.mime.startsWith('image/') ? (
              <Picture
                src={`/api/files/${medium.assetId}?width=160`}
                alt=""
                className="size-16 object-cover rounded-md border border-line"
              />
            ) : (
              <span className="size-16 grid place-items-center bg-sunk rounded-md text-[12px] break-all p-1">
                {medium.mime.split('/')[1]}
              </span>
            )}
            <div className="flex-1 min-w-0 text-[13px]">
              <label>
                <span className="text-muted block truncate">Alternative text of {medium.name}</span>
                <input
                  className="field"
                  readOnly={readOnly}
                  value={medium.alt}
                  placeholder="What can be seen, for those who cannot"
                  onChange={(event) => onChange(media.map((other) => (other === medium ? { ...medium, alt: event.target.value } : other)))}
                />
              </label>
              {isClip(medium) && <ClipCover clip={medium} media={media} readOnly={readOnly} uploads={uploads} onChange={onChange} />}
            </div>
            {!readOnly && (
              <span className="flex self-end">
                <IconButton label={`Move ${medium.name} earlier`} disabled={index === 0} onClick={() => swap(index, index - 1)}>
                  <ArrowLeft size={16} aria-hidden />
                </IconButton>
                <IconButton
                  label={`Move ${medium.name} later`}
                  disabled={index === media.length - 1}
                  onClick={() => swap(index, index + 1)}
                >
                  <ArrowRight size={16} aria-hidden />
                </IconButton>
                <IconButton label={`Take out ${medium.name}`} onClick={() => onChange(media.filter((other) => other !== medium))}>
                  <Trash2 size={16} aria-hidden />
                </IconButton>
              </span>
            )}
          </li>
        ))}
      </ul>
      {media.length === 0 && readOnly && <p className="text-muted">None yet.</p>}
      {!readOnly && (
        <>
          <input
            ref={input}
            type="file"
            multiple
            className="sr-only"
            aria-label="Add pictures or clips"
            tabIndex={-1}
            onChange={(event) => {
              uploads.add([...(event.target.files ?? [])]);
              event.target.value = '';
            }}
          />
          <UploadList uploads={uploads} />
          <div className="flex flex-wrap gap-2 mt-2">
            <Button onClick={() => input.current?.click()}>
              <ImagePlus size={16} aria-hidden /> Add pictures or clips
            </Button>
            {library}
            {atHand.length > 0 && (
              <Menu
                label="From material or brief"
                className={buttonClass('plain')}
                trigger={
                  <>
                    From material or brief <ChevronDown size={16} aria-hidden />
                  </>
                }
              >
                {atHand.map((file) => (
                  <MenuItem key={file.assetId} onSelect={() => onTake(file)}>
                    {file.mime.startsWith('image/') && (
                      <Picture
                        src={`/api/files/${file.assetId}?width=160`}
                        alt=""
                        className="size-9 object-cover rounded-md border border-line"
                      />
                    )}
                    {file.name}
                  </MenuItem>
                ))}
              </Menu>
            )}
          </div>
        </>
      )}
    </div>
  );
}
