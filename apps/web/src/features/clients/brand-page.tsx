import { useSuspenseQuery } from '@tanstack/react-query';
import { useParams } from 'react-router';

import { brandQuery } from '../../api/clients';
import { ClientCode, Tag } from '../../ui/tags';
import { ContrastTable } from './contrast-table';
import { Picture } from '../../ui/picture';

/** A client's brand sheet as makers read it. */
export function BrandPage() {
  const { clientId = '' } = useParams();
  const { data: sheet } = useSuspenseQuery(brandQuery(clientId));
  const { brand } = sheet;
  return (
    <div className="max-w-4xl mx-auto">
      <header className="flex flex-wrap items-center gap-3 mb-4">
        <ClientCode code={sheet.code} colour={sheet.colour} />
        <h1 className="text-2xl leading-tight">{sheet.name}: brand sheet</h1>
      </header>
      <div className="card p-5 grid gap-5">
        <Part title="Voice">{brand.voice ? <p className="whitespace-pre-wrap max-w-[75ch]">{brand.voice}</p> : <Nothing />}</Part>
        <div className="grid gap-5 sm:grid-cols-2">
          <Part title="Words to use">
            <Words words={brand.wordsToUse} tone="pine" />
          </Part>
          <Part title="Words never to use">
            <Words words={brand.wordsNever} tone="rhubarb" />
          </Part>
        </div>
        <Part title="Disclosure">{brand.disclosure || <Nothing />}</Part>
        <Part title="Palette">
          {brand.palette.length === 0 && <Nothing />}
          <ul className="flex flex-wrap gap-3">
            {brand.palette.map((colour) => (
              <li key={`${colour.name}${colour.hex}`} className="text-[13px]">
                <span aria-hidden className="block h-14 w-24 rounded-md border border-line mb-1" style={{ background: colour.hex }} />
                {colour.name}
                <span className="block text-muted tabular">{colour.hex}</span>
              </li>
            ))}
          </ul>
          <ContrastTable palette={brand.palette} />
        </Part>
        <Part title="Logos">
          {sheet.logos.length === 0 && <Nothing />}
          <ul className="flex flex-wrap gap-3">
            {sheet.logos.map((logo) => (
              <li key={logo.assetId}>
                <a
                  href={`/api/clients/${sheet.id}/brand/files/${logo.assetId}`}
                  target="_blank"
                  rel="noreferrer"
                  className="block card p-2"
                >
                  <Picture src={`/api/clients/${sheet.id}/brand/files/${logo.assetId}`} alt={logo.name} className="h-20 object-contain" />
                </a>
              </li>
            ))}
          </ul>
        </Part>
      </div>
    </div>
  );
}

const Nothing = () => <p className="text-muted">Nothing is written here yet.</p>;

function Part({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <section aria-label={title}>
      <h2 className="text-base mb-1">{title}</h2>
      {children}
    </section>
  );
}

function Words({ words, tone }: { words: readonly string[]; tone: 'pine' | 'rhubarb' }) {
  if (words.length === 0) return <Nothing />;
  return (
    <p className="flex flex-wrap gap-1.5">
      {words.map((word) => (
        <Tag key={word} tone={tone}>
          {word}
        </Tag>
      ))}
    </p>
  );
}
