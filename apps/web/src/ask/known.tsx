import type { KnownShape, OpenedLinkShape } from '@zesting/contract';
import { useEffect, useRef, useState } from 'react';
import { useLanguage } from '../language/language';
import { call } from '../lib/api';

const SETTLED_MS = 500;

interface KnownProps {
  readonly roomToken: string;
  /** what they call it so far */
  readonly title: string;
  /** the day that they wish for so far */
  readonly on: string | null;
  /** told once, who they are */
  readonly onKnown: (who: Pick<KnownShape, 'name' | 'email'>) => void;
}

/** What a contact is told while they ask: what is alike and there already, and what is left of their month. Nothing where that cannot be had. */
export function Known({ roomToken, title, on, onKnown }: KnownProps) {
  const { t, dayWords, monthWords } = useLanguage();
  const [known, setKnown] = useState<KnownShape>();
  const contactId = useRef<string>(undefined);
  const isTold = useRef(false);
  useEffect(() => {
    const stop = new AbortController();
    const ask = async () => {
      contactId.current ??= (await call<OpenedLinkShape>('/room/open', { method: 'POST', body: { token: roomToken } })).linkId;
      const found = await call<KnownShape>(`/room/${contactId.current}/known`, {
        method: 'POST',
        body: { title: title.slice(0, 200), on },
        signal: stop.signal,
      });
      setKnown(found);
      if (!isTold.current) onKnown(found);
      isTold.current = true;
    };
    const timer = setTimeout(() => void ask().catch(() => undefined), isTold.current ? SETTLED_MS : 0); // the form goes on without it
    return () => {
      clearTimeout(timer);
      stop.abort();
    };
    // who they are is told once, by whatever was drawn then
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [roomToken, title, on]);
  if (!known || (known.alike.length === 0 && known.allowance.lines.length === 0)) return null;
  return (
    <aside aria-label={t('Known already')} aria-live="polite" className="card p-4 my-4">
      {known.alike.length > 0 && (
        <>
          <p className="font-medium">{t('Something like it is there already:')}</p>
          <ul className="mb-1">
            {known.alike.map(({ title: theirs, formatName, on: then, standing }, index) => (
              <li key={index} className="flex flex-wrap gap-x-2 min-h-7">
                <span className="break-words">{theirs ?? t('Something in the making')}</span>
                <span className="text-muted">{[formatName, t(STANDINGS[standing].words), dayWords(then)].filter(Boolean).join(', ')}</span>
              </li>
            ))}
          </ul>
        </>
      )}
      {known.allowance.lines.length > 0 && (
        <p className="text-muted">
          {t('Left of {{month}}:', { month: monthWords(known.allowance.month) })}{' '}
          {known.allowance.lines
            .map(({ formatName, included, left }) =>
              formatName === null
                ? t('hours: {{left}} of {{included}}', { left: Math.max(0, left), included })
                : t('{{format}}: {{left}} of {{included}}', { left: Math.max(0, left), included, format: formatName }),
            )
            .join(', ')}
        </p>
      )}
    </aside>
  );
}

const STANDINGS = { asked: { words: 'asked for' }, planned: { words: 'planned' }, out: { words: 'published' } } as const;
