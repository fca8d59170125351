import { cropOfArea, keptOf, shapeOf, type Crop, type Size } from '@zesting/core';
import ReactCrop from 'react-image-crop';
import { Picture } from './picture';

interface CropperProps {
  /** in pixels, as it is shown */
  readonly picture: Size;
  readonly source: string;
  readonly alt: string;
  readonly crop: Crop;
  readonly onChange: (crop: Crop) => void;
}

const HANDLES = { n: 'top', ne: 'upper right', e: 'right', se: 'lower right', s: 'bottom', sw: 'lower left', w: 'left', nw: 'upper left' };

/** What the package calls its handles, in our words. */
const LABELS = {
  cropArea: 'What is kept: arrow keys move it',
  nDragHandle: label(HANDLES.n),
  neDragHandle: label(HANDLES.ne),
  eDragHandle: label(HANDLES.e),
  seDragHandle: label(HANDLES.se),
  sDragHandle: label(HANDLES.s),
  swDragHandle: label(HANDLES.sw),
  wDragHandle: label(HANDLES.w),
  nwDragHandle: label(HANDLES.nw),
};

function label(where: string): string {
  return `Size, from the ${where}: arrow keys change it`;
}

/** A picture, whole, with what is kept of it: moved and sized by hand or by keys, always in its shape. */
export function Cropper({ picture, source, alt, crop, onChange }: CropperProps) {
  const { x, y, width, height } = keptOf(picture, crop);
  const shape = shapeOf(crop.ratio);
  return (
    <ReactCrop
      crop={{ unit: '%', x: x / 100, y: y / 100, width: width / 100, height: height / 100 }}
      aspect={shape.width / shape.height}
      keepSelection
      ruleOfThirds
      ariaLabels={LABELS}
      className="cropper"
      style={{ maxHeight: '46vh' }}
      onChange={(_, area) => {
        // nothing is measured before the picture is there
        if (area.width === 0 || area.height === 0) return;
        onChange(cropOfArea(picture, crop.ratio, { x: area.x * 100, y: area.y * 100, width: area.width * 100, height: area.height * 100 }));
      }}
    >
      <Picture src={source} alt={alt} />
    </ReactCrop>
  );
}
