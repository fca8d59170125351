import type { UploadShape } from '@zesting/contract';
import { useEffect, useRef, useState } from 'react';
import type { Sending } from './resumable';

/** An upload as it is shown. */
export interface Uploading {
  readonly key: string;
  readonly name: string;
  readonly bytes: number;
  readonly sent: number;
  readonly state: 'sending' | 'paused' | 'stopped' | 'refused';
  readonly words: string;
}

export interface Uploads {
  readonly list: readonly Uploading[];
  readonly add: (files: readonly File[]) => void;
  readonly pause: (key: string) => void;
  readonly goOn: (key: string) => void;
  readonly takeOut: (key: string) => void;
}

/** Uploads in parts to a collection of the API, each with its progress. `onDone` is called once per file that arrived. */
export function useUploads(collection: string, onDone: (file: UploadShape) => void): Uploads {
  const [list, setList] = useState<readonly Uploading[]>([]);
  const running = useRef(new Map<string, Sending>());
  const done = useRef(onDone);
  useEffect(() => {
    done.current = onDone;
  });
  const change = (key: string, part: Partial<Uploading>) =>
    setList((before) => before.map((one) => (one.key === key ? { ...one, ...part } : one)));
  const drop = (key: string) => {
    running.current.delete(key);
    setList((before) => before.filter((one) => one.key !== key));
  };

  const begin = async (key: string, file: File) => {
    const { sendFile } = await import('./resumable'); // not a part of what the small entries load first
    const sending = sendFile(collection, file, {
      onProgress: (sent) => change(key, { sent }),
      onDone: (stored) => {
        drop(key);
        done.current(stored);
      },
      onStop: (words, isRefused) => change(key, { words, state: isRefused ? 'refused' : 'stopped' }),
    });
    running.current.set(key, sending);
  };
  const goOn = (key: string) => {
    change(key, { state: 'sending', words: '' });
    running.current.get(key)?.goOn();
  };
  useEffect(() => {
    // back online: what was cut goes on without a click
    const again = () =>
      setList((before) =>
        before.map((one) => {
          if (one.state !== 'stopped') return one;
          running.current.get(one.key)?.goOn();
          return { ...one, state: 'sending', words: '' };
        }),
      );
    const started = running.current;
    window.addEventListener('online', again);
    return () => {
      window.removeEventListener('online', again);
      for (const sending of started.values()) sending.pause();
    };
  }, []);

  return {
    list,
    add: (files) => {
      for (const file of files) {
        const key = crypto.randomUUID();
        setList((before) => [...before, { key, name: file.name, bytes: file.size, sent: 0, state: 'sending', words: '' }]);
        void begin(key, file);
      }
    },
    pause: (key) => {
      running.current.get(key)?.pause();
      change(key, { state: 'paused', words: 'Paused' });
    },
    goOn,
    takeOut: (key) => {
      running.current.get(key)?.giveUp();
      drop(key);
    },
  };
}
