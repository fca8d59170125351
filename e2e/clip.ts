/** A clip of so many bytes: the beginning of an MP4 by its content, the rest is filling. */
export function clip(bytes: number): Buffer {
  const file = Buffer.alloc(bytes, 7);
  Buffer.from('000000186674797069736f6d0000020069736f6d69736f32', 'hex').copy(file);
  return file;
}

/** A sound that plays: so many seconds of silence, as WAV. */
export function silence(seconds: number): Buffer {
  const rate = 8000;
  const file = Buffer.alloc(44 + rate * seconds, 128);
  file.write('RIFF', 0);
  file.writeUInt32LE(36 + rate * seconds, 4);
  file.write('WAVEfmt ', 8);
  file.writeUInt32LE(16, 16); // the length of what follows: one channel of 8 bits
  file.writeUInt16LE(1, 20);
  file.writeUInt16LE(1, 22);
  file.writeUInt32LE(rate, 24);
  file.writeUInt32LE(rate, 28);
  file.writeUInt16LE(1, 32);
  file.writeUInt16LE(8, 34);
  file.write('data', 36);
  file.writeUInt32LE(rate * seconds, 40);
  return file;
}
