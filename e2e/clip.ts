/** A clip of so many bytes: the beginning of an MP4 by its content, the rest is filling. */
export function clip(bytes: number): Buffer {
  const file = Buffer.alloc(bytes, 7);
  Buffer.from('000000186674797069736f6d0000020069736f6d69736f32', 'hex').copy(file);
  return file;
}
