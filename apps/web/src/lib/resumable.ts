import type { UploadShape } from '@zesting/contract';
import { Upload } from 'tus-js-client';
import { ApiProblem, call, linkHeaders, wordsOf } from './api';

/** A part of a file that is sent at once, in bytes: a cut loses no more than one. */
const PART_BYTES = 5 * 1024 * 1024;
/** How long to wait before each new try, in milliseconds, before a person has to say *go on*. */
const RETRY_MS = [0, 500, 1500, 3000, 5000];

export interface Sending {
  readonly pause: () => void;
  readonly goOn: () => void;
  readonly giveUp: () => void;
}

export interface SendingEvents {
  readonly onProgress: (sentBytes: number) => void;
  readonly onDone: (file: UploadShape) => void;
  /** the connection was lost for longer than the tries last, or the file was refused for good */
  readonly onStop: (words: string, isRefused: boolean) => void;
}

/**
 * Sends a file in parts. After a cut it goes on by itself from where it was; the same file chosen again after a reload goes on too.
 * @param collection where the API takes uploads, such as `/pieces/…/uploads`
 */
export function sendFile(collection: string, file: File, { onProgress, onDone, onStop }: SendingEvents): Sending {
  const take = async () => {
    const id = upload.url?.split('/').at(-1) ?? '';
    try {
      onDone(await call<UploadShape>(`${collection}/${id}/file`, { method: 'POST', body: {} }));
    } catch (error) {
      onStop(wordsOf(error), error instanceof ApiProblem && error.status >= 400 && error.status < 500);
    }
  };
  const upload = new Upload(file, {
    endpoint: `/api${collection}`,
    headers: linkHeaders(),
    chunkSize: PART_BYTES,
    retryDelays: RETRY_MS,
    metadata: { filename: file.name },
    removeFingerprintOnSuccess: true,
    fingerprint: () => Promise.resolve(['zesting', collection, file.name, file.size, file.lastModified].join(' ')),
    onProgress,
    onSuccess: () => void take(),
    onError: (error) => {
      const status = 'originalResponse' in error ? error.originalResponse?.getStatus() : undefined;
      if (status === 413) onStop('This file is larger than 2 GB. Send a smaller one.', true);
      else if (status === 401 || status === 403) onStop('You are signed out, or this is not yours to change. The file was not sent.', true);
      else onStop('The connection was cut. What was sent is kept.', false);
    },
  });
  const start = async () => {
    const [before] = await upload.findPreviousUploads();
    if (before) upload.resumeFromPreviousUpload(before);
    upload.start();
  };
  void start();
  return {
    pause: () => void upload.abort(),
    goOn: () => upload.start(),
    giveUp: () => void upload.abort(true).catch(() => undefined), // what is left behind is cleared after a week
  };
}
