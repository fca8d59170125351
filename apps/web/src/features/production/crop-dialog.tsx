import type { ChannelContentShape, MediumShape } from '@zesting/contract';
import { cropAround, frameOn, LARGEST_CROP, SMALLEST_CROP, type Crop, type Size } from '@zesting/core';
import { useState } from 'react';
import { Button } from '../../ui/button';
import { Cropper } from '../../ui/cropper';
import { Dialog } from '../../ui/dialog';
import { Field } from '../../ui/field';
import { Framed } from '../../ui/framed';

/** Shapes that can be chosen besides a channel’s own; full-screen upright is 9:16 (common practice). */
const SHAPES = ['1:1', '4:5', '9:16', '16:9', '3:2', '2:3', '2:1'];

interface CropDialogProps {
  readonly medium: MediumShape;
  readonly size: Size;
  readonly part: ChannelContentShape;
  /** other channels of the piece that cut what has another shape */
  readonly others: readonly ChannelContentShape[];
  /** @param alike whether the others cut it around the same point, each at its own shape */
  readonly onCut: (crop: Crop | null, alike: boolean) => void;
  readonly onClose: () => void;
}

/** How a picture is cut for a channel: the shape, the point around which, and how much is kept. The picture itself stays as it is. */
export function CropDialog({ medium, size, part, others, onCut, onClose }: CropDialogProps) {
  const before = part.crops?.[medium.hash];
  const [crop, setCrop] = useState<Crop>(before ?? cropAround(part.rules.ratio));
  const [isAlike, setAlike] = useState(false);
  const shapes = [...new Set([part.rules.ratio, ...part.rules.otherShapes, crop.ratio, ...SHAPES])];
  const source = `/api/files/${medium.assetId}`;
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={`Cut “${medium.name}” for ${part.name}`}
      description="The picture stays as it is: only what goes out here is cut."
    >
      <div className="grid gap-5 md:grid-cols-[minmax(0,1fr)_220px] items-start">
        <div className="grid place-items-center rounded-md bg-sunk p-3">
          <Cropper picture={size} source={`${source}?width=1080`} alt={medium.alt || medium.name} crop={crop} onChange={setCrop} />
        </div>
        <div>
          <Field label="Shape">
            {(control) => (
              <select
                {...control}
                className="field"
                value={crop.ratio}
                onChange={({ target }) => setCrop({ ...crop, ratio: target.value })}
              >
                {shapes.map((shape) => (
                  <option key={shape} value={shape}>
                    {shape === part.rules.ratio ? `${shape}, the channel’s` : shape}
                  </option>
                ))}
              </select>
            )}
          </Field>
          <Field label="How much is kept" help="Arrow keys move the frame; dragging does too.">
            {(control) => (
              <input
                {...control}
                type="range"
                className="w-full accent-pine min-h-6"
                min={SMALLEST_CROP}
                max={LARGEST_CROP}
                step={10}
                value={crop.size}
                aria-valuetext={`${Math.round(crop.size / 10)} % of what there is room for`}
                onChange={({ target }) => setCrop({ ...crop, size: Number(target.value) })}
              />
            )}
          </Field>
          <p className="text-muted text-[12px] mb-1">As it goes out</p>
          <Framed frame={frameOn({ ...size, crop }, part.rules)} src={`${source}?width=480`} alt="" side={150} />
          {others.length > 0 && (
            <label className="flex items-start gap-2 mt-3 text-[13px]">
              <input
                type="checkbox"
                className="size-4 accent-pine mt-0.5"
                checked={isAlike}
                onChange={({ target }) => setAlike(target.checked)}
              />
              Around the same point on {others.map(({ name, rules }) => `${name} (${rules.ratio})`).join(', ')}
            </label>
          )}
        </div>
      </div>
      <div className="flex flex-wrap justify-end gap-2 mt-4">
        {before && (
          <Button look="quiet" onClick={() => onCut(null, false)}>
            Let it go out whole
          </Button>
        )}
        <Button onClick={onClose}>Cancel</Button>
        <Button look="main" onClick={() => onCut(crop, isAlike)}>
          Cut it like this
        </Button>
      </div>
    </Dialog>
  );
}
