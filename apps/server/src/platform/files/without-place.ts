/** What a camera wrote beside the picture, in each kind of file that cameras make. */
const JPEG_DROPPED = [/^Exif\0\0/, /^http:\/\/ns\.adobe\.com\/x/, /^Photoshop 3\.0\0/, /^MPF\0/];
const PNG_DROPPED = new Set(['eXIf', 'tEXt', 'zTXt', 'iTXt', 'tIME']);

/**
 * The same picture without what a camera wrote beside it: where and when it was taken, by which device. Pixels, colours and the way up stay,
 * bit by bit. What is not understood to its end is given back as it came.
 * @see ITU-T T.81 annex B (JPEG), PNG 11.3, RFC 9649 (WebP), Exif 2.32
 */
export function withoutPlace(bytes: Buffer, mime: string): Buffer {
  try {
    if (mime === 'image/jpeg') return jpeg(bytes);
    if (mime === 'image/png') return png(bytes);
    return mime === 'image/webp' ? webp(bytes) : bytes;
  } catch {
    return bytes; // out of bounds: a file that says of itself what is not so
  }
}

function jpeg(bytes: Buffer): Buffer {
  const kept: Buffer[] = [bytes.subarray(0, 2)];
  let orientation = 1;
  let at = 2;
  for (;;) {
    if (bytes[at] !== 0xff) return bytes;
    const marker = bytes.readUInt8(at + 1);
    if (marker === 0xff) {
      at += 1; // fill bytes
      continue;
    }
    if (marker === 0xd9) break;
    const end = at + 2 + bytes.readUInt16BE(at + 2);
    const head = bytes.toString('latin1', at + 4, Math.min(end, at + 34));
    const isBeside = (marker === 0xe1 || marker === 0xe2 || marker === 0xed) && JPEG_DROPPED.some((start) => start.test(head));
    if (isBeside && head.startsWith('Exif')) orientation = orientationOf(bytes.subarray(at + 10, end));
    if (!isBeside) kept.push(bytes.subarray(at, end));
    at = end;
    if (marker === 0xda) {
      // what is drawn follows, up to the next marker that is none of its own
      while (!(bytes[at] === 0xff && bytes[at + 1] !== 0 && !((bytes[at + 1] ?? 0) >= 0xd0 && (bytes[at + 1] ?? 0) <= 0xd7))) {
        if (at >= bytes.length) return bytes;
        at++;
      }
      kept.push(bytes.subarray(end, at));
    }
  }
  kept.push(Buffer.from([0xff, 0xd9])); // what follows the end is another picture, with its own notes
  if (orientation > 1) kept.splice(1, 0, exifSegment(orientation));
  return Buffer.concat(kept);
}

/** The tag *orientation* of a TIFF header, 1 where it has none. */
function orientationOf(tiff: Buffer): number {
  const isLittle = tiff.toString('latin1', 0, 2) === 'II';
  const u16 = (at: number) => (isLittle ? tiff.readUInt16LE(at) : tiff.readUInt16BE(at));
  const u32 = (at: number) => (isLittle ? tiff.readUInt32LE(at) : tiff.readUInt32BE(at));
  try {
    const start = u32(4);
    for (let entry = 0, count = u16(start); entry < count; entry++) {
      const at = start + 2 + entry * 12;
      if (u16(at) === 0x0112) return Math.min(8, Math.max(1, u16(at + 8)));
    }
  } catch {
    return 1; // a header that ends early says nothing
  }
  return 1;
}

/** A TIFF header with nothing but the orientation. */
function tiffOf(orientation: number): Buffer {
  const tiff = Buffer.alloc(26);
  tiff.write('II*\0', 0, 'latin1');
  tiff.writeUInt32LE(8, 4);
  tiff.writeUInt16LE(1, 8);
  tiff.writeUInt16LE(0x0112, 10);
  tiff.writeUInt16LE(3, 12);
  tiff.writeUInt32LE(1, 14);
  tiff.writeUInt16LE(orientation, 18);
  return tiff;
}

function exifSegment(orientation: number): Buffer {
  const body = Buffer.concat([Buffer.from('Exif\0\0', 'latin1'), tiffOf(orientation)]);
  const head = Buffer.from([0xff, 0xe1, 0, 0]);
  head.writeUInt16BE(body.length + 2, 2);
  return Buffer.concat([head, body]);
}

function png(bytes: Buffer): Buffer {
  const kept: Buffer[] = [bytes.subarray(0, 8)];
  for (let at = 8; at < bytes.length;) {
    const end = at + 12 + bytes.readUInt32BE(at);
    if (end > bytes.length) return bytes;
    const type = bytes.toString('latin1', at + 4, at + 8);
    if (!PNG_DROPPED.has(type)) kept.push(bytes.subarray(at, end));
    at = end;
    if (type === 'IEND') break;
  }
  return Buffer.concat(kept);
}

/** Flags of the extended header that say that notes follow: XMP and Exif. */
const WEBP_NOTES = 0x04 | 0x08;

function webp(bytes: Buffer): Buffer {
  const kept: Buffer[] = [];
  let extended: Buffer | undefined;
  let orientation = 1;
  for (let at = 12; at + 8 <= bytes.length;) {
    const size = bytes.readUInt32LE(at + 4);
    const end = at + 8 + size + (size % 2);
    const type = bytes.toString('latin1', at, at + 4);
    if (type === 'EXIF') {
      const tiff = bytes.subarray(at + 8, at + 8 + size);
      orientation = orientationOf(tiff.toString('latin1', 0, 4) === 'Exif' ? tiff.subarray(6) : tiff);
    } else if (type !== 'XMP ') {
      const chunk = Buffer.from(bytes.subarray(at, end));
      if (type === 'VP8X') extended = chunk;
      kept.push(chunk);
    }
    at = end;
  }
  if (extended) extended[8] = (extended[8] ?? 0) & ~WEBP_NOTES;
  if (orientation > 1 && extended) {
    extended[8] = (extended[8] ?? 0) | 0x08;
    const tiff = tiffOf(orientation);
    const head = Buffer.from('EXIF\0\0\0\0', 'latin1');
    head.writeUInt32LE(tiff.length, 4);
    kept.push(head, tiff);
  }
  const body = Buffer.concat(kept);
  const head = Buffer.from(bytes.subarray(0, 12));
  head.writeUInt32LE(body.length + 4, 4);
  return Buffer.concat([head, body]);
}
