import { momentWords } from '@zesting/core';
import type { MediumShape } from '@zesting/contract';
import { Camera } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import type { Uploads } from '../../lib/use-uploads';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Picture } from '../../ui/picture';

interface CoverProps {
  readonly clip: MediumShape;
  readonly media: readonly MediumShape[];
  readonly readOnly: boolean;
  readonly uploads: Uploads;
  readonly onChange: (media: MediumShape[]) => void;
}

const isPicture = ({ mime }: MediumShape): boolean => mime.startsWith('image/');

/** Which of the pictures stands for a clip before it plays, or a picture that is taken out of it; that one does not go out by itself where nobody wants it to. */
export function ClipCover({ clip, media, readOnly, uploads, onChange }: CoverProps) {
  const [open, setOpen] = useState(false);
  /** the picture out of the clip that is being brought, by its name */
  const awaited = useRef<string | null>(null);
  const pictures = media.filter(isPicture);
  const choose = (hash: string) => {
    const { cover: _, ...rest } = clip;
    onChange(media.map((other) => (other === clip ? { ...rest, ...(hash === '' ? {} : { cover: hash }) } : other)));
  };
  const cover = pictures.find(({ hash }) => hash === clip.cover);
  useEffect(() => {
    const arrived = media.find((medium) => isPicture(medium) && medium.name === awaited.current);
    if (!arrived) return;
    awaited.current = null;
    choose(arrived.hash);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once, when the picture has come
  }, [media]);
  const take = (file: File) => {
    setOpen(false);
    const known = pictures.find(({ name }) => name === file.name); // the same moment once more
    if (known) return choose(known.hash);
    awaited.current = file.name;
    uploads.add([file]);
  };
  return (
    <div className="mt-1.5">
      <label>
        <span className="text-muted">Cover</span>
        <span className="flex gap-2 items-center">
          {cover && (
            <Picture src={`/api/files/${cover.assetId}?width=160`} alt="" className="size-8 object-cover rounded-md border border-line" />
          )}
          <select
            className="field"
            aria-label={`Cover of ${clip.name}`}
            disabled={readOnly || pictures.length === 0}
            value={cover?.hash ?? ''}
            onChange={({ target }) => choose(target.value)}
          >
            <option value="">{pictures.length === 0 ? 'No picture to choose yet' : 'None: the channel takes what it wants'}</option>
            {pictures.map(({ hash, name }) => (
              <option key={hash} value={hash}>
                {name}
              </option>
            ))}
          </select>
        </span>
      </label>
      {!readOnly && clip.mime.startsWith('video/') && (
        <Button look="quiet" className="mt-1" aria-label={`Take one out of the clip ${clip.name}`} onClick={() => setOpen(true)}>
          <Camera size={16} aria-hidden /> Take one out of the clip
        </Button>
      )}
      {open && <FrameDialog clip={clip} onClose={() => setOpen(false)} onTake={take} />}
    </div>
  );
}

/** How far a press goes: about one picture of a clip at 25 a second. */
const STEP_SECONDS = 0.04;
const QUALITY = 0.92;

/** "0:02.40": a moment to the hundredth, since pictures of a clip lie closer than seconds. */
const momentOf = (seconds: number): string => {
  const hundredths = Math.round(seconds * 100);
  return `${momentWords(hundredths * 10)}.${String(hundredths % 100).padStart(2, '0')}`;
};

/** What the picture at a moment of a clip is called: the clip’s name and the moment, the same for the same moment. */
const frameName = (clipName: string, seconds: number): string =>
  `${clipName.replace(/\.[^.]*$/, '')} at ${momentOf(seconds).replaceAll(':', '.')}.jpg`;

/** Shows a clip, and takes the picture that is seen of it. */
function FrameDialog({
  clip,
  onClose,
  onTake,
}: {
  readonly clip: MediumShape;
  readonly onClose: () => void;
  readonly onTake: (file: File) => void;
}) {
  const player = useRef<HTMLVideoElement>(null);
  const [seen, setSeen] = useState({ at: 0, length: 0 });
  const [fault, setFault] = useState<string>();
  const look = () => {
    const { currentTime = 0, duration = 0 } = player.current ?? {};
    setSeen({ at: currentTime, length: Number.isFinite(duration) ? duration : 0 });
  };
  const goTo = (seconds: number) => {
    if (!player.current) return;
    player.current.pause();
    player.current.currentTime = Math.min(Math.max(0, seconds), seen.length);
  };
  const take = () => {
    const video = player.current;
    const canvas = document.createElement('canvas');
    const drawing = canvas.getContext('2d');
    if (!video || !drawing || video.videoWidth === 0)
      return setFault('This clip cannot be shown here, so no picture can be taken out of it.');
    Object.assign(canvas, { width: video.videoWidth, height: video.videoHeight });
    drawing.drawImage(video, 0, 0);
    const name = frameName(clip.name, video.currentTime);
    canvas.toBlob(
      (bytes) => (bytes ? onTake(new File([bytes], name, { type: 'image/jpeg' })) : setFault('This picture could not be taken.')),
      'image/jpeg',
      QUALITY,
    );
  };
  const cannotPlay = 'This browser cannot show this clip. Bring the picture as a file instead.';
  return (
    <Dialog open onClose={onClose} title="A picture out of the clip" description={clip.name} wide>
      <video
        ref={player}
        src={`/api/files/${clip.assetId}`}
        preload="auto"
        playsInline
        controls
        aria-label={clip.name}
        className="w-full max-h-[46vh] rounded-md bg-sunk"
        onLoadedMetadata={look}
        onTimeUpdate={look}
        onSeeked={look}
        onError={() => setFault(cannotPlay)}
      />
      <div className="flex flex-wrap items-center gap-2 mt-3">
        <label className="flex-1 min-w-48 flex items-center gap-3">
          <span className="text-muted">Moment</span>
          <input
            type="range"
            className="flex-1 accent-pine"
            min={0}
            max={seen.length}
            step={STEP_SECONDS}
            value={seen.at}
            aria-valuetext={momentOf(seen.at)}
            onChange={({ target }) => goTo(Number(target.value))}
          />
        </label>
        <span className="tabular">
          {momentOf(seen.at)} of {momentOf(seen.length)}
        </span>
        <Button onClick={() => goTo(seen.at - STEP_SECONDS)}>One back</Button>
        <Button onClick={() => goTo(seen.at + STEP_SECONDS)}>One on</Button>
      </div>
      <p className="text-muted mt-3">It joins the piece’s pictures and stands for the clip before it plays. Save to keep it.</p>
      {fault && (
        <p role="alert" className="text-rind mt-2">
          {fault}
        </p>
      )}
      <div className="flex justify-end gap-2 mt-4">
        <Button onClick={onClose}>Leave as it was</Button>
        <Button look="main" disabled={fault !== undefined || seen.length === 0} onClick={take}>
          Take this picture
        </Button>
      </div>
    </Dialog>
  );
}
