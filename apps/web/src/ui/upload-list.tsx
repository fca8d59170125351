import { Pause, Play, X } from 'lucide-react';
import { bytesWords } from '../lib/format';
import { useLanguage } from '../language/language';
import type { Uploads } from '../lib/use-uploads';
import { IconButton } from './button';

/** Files on their way: how far each is, to be paused, gone on with, or given up. */
export function UploadList({ uploads }: { uploads: Uploads }) {
  const { t } = useLanguage();
  if (uploads.list.length === 0) return null;
  return (
    <ul aria-label={t('Files on their way')} className="grid grid-cols-[minmax(0,1fr)] gap-2 mt-2">
      {uploads.list.map(({ key, name, bytes, sent, state, words }) => (
        <li key={key} className="card bg-paper px-3 py-2">
          <div className="flex items-center gap-2">
            <span className="truncate flex-1">{name}</span>
            <span className="text-muted text-[13px] tabular whitespace-nowrap">
              {t('{{sent}} of {{all}}', { sent: bytesWords(sent), all: bytesWords(bytes) })}
            </span>
            {state === 'sending' && (
              <IconButton label={t('Pause {{name}}', { name })} onClick={() => uploads.pause(key)}>
                <Pause size={15} aria-hidden />
              </IconButton>
            )}
            {(state === 'paused' || state === 'stopped') && (
              <IconButton label={t('Go on with {{name}}', { name })} onClick={() => uploads.goOn(key)}>
                <Play size={15} aria-hidden />
              </IconButton>
            )}
            <IconButton label={t('Give up {{name}}', { name })} onClick={() => uploads.takeOut(key)}>
              <X size={15} aria-hidden />
            </IconButton>
          </div>
          <progress
            className="block w-full h-1.5 mt-1 accent-pine"
            aria-label={t('Sent of {{name}}', { name })}
            max={Math.max(1, bytes)}
            value={sent}
          />
          {words && (
            <p role="status" className={`text-[13px] mt-1 ${state === 'refused' ? 'text-rhubarb' : 'text-rind'}`}>
              {t(words)}
            </p>
          )}
        </li>
      ))}
    </ul>
  );
}
