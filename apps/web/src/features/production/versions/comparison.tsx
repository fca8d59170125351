import type { MediumShape, VersionContentShape } from '@zesting/contract';
import { fillShape, frameOn, wholeFrame, type ContentChange, type Crop, type Medium, type TextPiece } from '@zesting/core';
import { useState } from 'react';
import { count } from '../../../lib/format';
import { Choice } from '../../../ui/choice';
import { Preview } from '../../../ui/preview';
import { Prose } from '../../../ui/prose';
import { changesBetween, changeWords, cropWords } from './compare-case';

interface ComparisonProps {
  readonly before: VersionContentShape;
  readonly after: VersionContentShape;
}

const headOf = ({ number }: VersionContentShape): string => (number === null ? 'Being worked on' : `Version ${number}`);

/** What differs between two versions: first in a few words, then side by side. */
export function Comparison({ before, after }: ComparisonProps) {
  const changes = changesBetween(before, after);
  return (
    <section aria-labelledby="differs" className="card p-4 min-w-0">
      <h2 id="differs" className="text-lg">
        {changes.length === 0 ? 'Nothing differs' : `${count(changes.length, 'difference')}`}
      </h2>
      {changes.length === 0 ? (
        <p className="text-muted">
          {headOf(before)} and {after.number === null ? 'what is being worked on' : headOf(after).toLowerCase()} say and show the same.
        </p>
      ) : (
        <>
          <ul aria-label="What differs" className="text-[13px] mt-1 mb-3">
            {changes.map(({ change, where }, index) => (
              <li key={index}>
                <span className="font-medium">{where}</span> <span className="text-muted">{changeWords(change)}</span>
              </li>
            ))}
          </ul>
          <div className="hidden md:grid grid-cols-2 gap-x-6 border-b border-line-strong pb-1 font-semibold" aria-hidden>
            <span>{headOf(before)}</span>
            <span>{headOf(after)}</span>
          </div>
          {changes.map(({ change, where }, index) => (
            <div key={index} className="py-3 border-b border-line last:border-b-0">
              <h3 className="text-[13px] font-sans font-normal tracking-normal text-muted mb-1">{where}</h3>
              <Sides change={change} before={before} after={after} />
            </div>
          ))}
        </>
      )}
      <Same version={after} changes={changes.map(({ change }) => change)} />
    </section>
  );
}

interface SameText {
  readonly where: string;
  readonly text: string;
  readonly isLaidOut?: boolean;
  readonly isSame: boolean;
}

/** What stands in both, once. */
function Same({ version, changes }: { version: VersionContentShape; changes: readonly ContentChange[] }) {
  const differs = (field: ContentChange['field'], channelId: string | null = null) =>
    changes.some((change) => change.field === field && change.channelId === channelId);
  const isChangedText = (name: string) => changes.some((change) => change.field === 'text' && change.name === name);
  const texts: readonly SameText[] = [
    ...version.texts.map(({ name, text }) => ({ where: name, text, isSame: !isChangedText(name) })),
    { where: 'Copy', text: version.copy, isLaidOut: version.isLaidOut, isSame: !differs('copy') },
    { where: 'Disclosure', text: version.disclosure, isSame: !differs('disclosure') },
    ...version.channels.flatMap(({ channelId, name, copy, tags, firstComment, link }) => [
      { where: `${name}: copy`, text: copy, isSame: !differs('copy', channelId) },
      { where: `${name}: tags`, text: tags.map((tag) => `#${tag}`).join(' '), isSame: !differs('tags', channelId) },
      { where: `${name}: first comment`, text: firstComment, isSame: !differs('firstComment', channelId) },
      { where: `${name}: link`, text: link, isSame: !differs('link', channelId) },
    ]),
  ].filter(({ text, isSame }) => isSame && text !== '');
  const media = differs('media') ? [] : version.media;
  if (texts.length === 0 && media.length === 0) return null;
  return (
    <section aria-labelledby="same" className="mt-4">
      <h2 id="same" className="text-base mb-2">
        The same in both
      </h2>
      <div className="grid md:grid-cols-[minmax(0,1fr)_minmax(0,2fr)] gap-x-6 gap-y-3 items-start">
        {media.length > 0 && (
          <ul className="grid gap-2">
            {media.map((medium, index) => (
              <li key={`${medium.assetId} ${index}`}>
                <Preview medium={medium} frame={fillShape(wholeFrame(medium), '1:1')} source={`/api/files/${medium.assetId}`} />
              </li>
            ))}
          </ul>
        )}
        <dl className="grid gap-2">
          {texts.map(({ where, text, isLaidOut = false }) => (
            <div key={where}>
              <dt className="text-muted text-[13px]">{where}</dt>
              <dd className={isLaidOut ? '' : 'whitespace-pre-wrap break-words'}>{isLaidOut ? <Prose source={text} /> : text}</dd>
            </div>
          ))}
        </dl>
      </div>
    </section>
  );
}

function Sides({ change, before, after }: ComparisonProps & { change: ContentChange }) {
  switch (change.field) {
    case 'channel':
    case 'cover':
    case 'layout':
      return <p>{changeWords(change)}</p>;
    case 'tags':
      return (
        <Two
          before={before}
          after={after}
          left={<Tags tags={change.tags.filter(({ kind }) => kind !== 'new')} />}
          right={<Tags tags={change.tags.filter(({ kind }) => kind !== 'gone')} />}
        />
      );
    case 'media':
      return <Media gone={change.gone} come={change.come} before={before} after={after} />;
    case 'shown':
      return (
        <Two
          before={before}
          after={after}
          left={<Shown media={change.before ?? before.media} />}
          right={<Shown media={change.after ?? after.media} />}
        />
      );
    case 'crop': {
      const medium = [...before.media, ...after.media].find(({ hash }) => hash === change.medium.hash);
      return (
        <Two
          before={before}
          after={after}
          left={<CutPicture medium={medium} crop={change.before} />}
          right={<CutPicture medium={medium} crop={change.after} />}
        />
      );
    }
    default:
      return (
        <Two
          before={before}
          after={after}
          left={<Marked pieces={change.pieces} side="gone" />}
          right={<Marked pieces={change.pieces} side="new" />}
        />
      );
  }
}

/** The two sides of one difference. */
function Two({ before, after, left, right }: ComparisonProps & { left: React.ReactNode; right: React.ReactNode }) {
  return (
    <div className="grid md:grid-cols-2 gap-x-6 gap-y-2">
      <div role="group" aria-label={headOf(before)} className="min-w-0">
        {left}
      </div>
      <div role="group" aria-label={headOf(after)} className="min-w-0">
        {right}
      </div>
    </div>
  );
}

/** A text with what is gone struck out, or with what is new underlined. */
function Marked({ pieces, side }: { pieces: readonly TextPiece[]; side: 'gone' | 'new' }) {
  const shown = pieces.filter(({ kind }) => kind === 'same' || kind === side);
  if (shown.length === 0) return <p className="text-muted">Empty</p>;
  return (
    <p className="whitespace-pre-wrap break-words">
      {shown.map(({ kind, text }, index) =>
        kind === 'gone' ? (
          <del key={index} className="bg-rhubarb-soft text-rhubarb rounded-sm">
            {text}
          </del>
        ) : kind === 'new' ? (
          <ins key={index} className="bg-pine-soft text-pine rounded-sm decoration-2 underline-offset-2">
            {text}
          </ins>
        ) : (
          <span key={index}>{text}</span>
        ),
      )}
    </p>
  );
}

function Tags({ tags }: { tags: Extract<ContentChange, { field: 'tags' }>['tags'] }) {
  if (tags.length === 0) return <p className="text-muted">None</p>;
  return (
    <ul className="flex flex-wrap gap-1.5">
      {tags.map(({ kind, tag }) => (
        <li key={tag}>
          {kind === 'gone' ? (
            <del className="bg-rhubarb-soft text-rhubarb rounded-sm">#{tag}</del>
          ) : kind === 'new' ? (
            <ins className="bg-pine-soft text-pine rounded-sm">#{tag}</ins>
          ) : (
            <span>#{tag}</span>
          )}
        </li>
      ))}
    </ul>
  );
}

/** The pictures and clips that a channel shows, by name. */
function Shown({ media }: { media: readonly Pick<Medium, 'name'>[] }) {
  return <p className="break-words">{media.length === 0 ? 'None' : media.map(({ name }) => name).join(', ')}</p>;
}

/** A picture as it is cut. */
function CutPicture({ medium, crop }: { medium: MediumShape | undefined; crop: Crop | null }) {
  if (!medium) return null;
  const frame = frameOn({ ...medium, crop }, { ratio: crop?.ratio ?? '1:1', otherShapes: [], cutsMedia: false });
  return (
    <div className="max-w-56">
      <Preview medium={medium} frame={frame} source={`/api/files/${medium.assetId}`} />
      <p className="text-[12.5px] text-muted">{cropWords(crop)}</p>
    </div>
  );
}

/** Pictures beside each other; where one took the place of another, also one over the other. */
function Media({ gone, come, before, after }: ComparisonProps & { gone: readonly Medium[]; come: readonly Medium[] }) {
  const [how, setHow] = useState<'beside' | 'over'>('beside');
  const isPicture = ({ assetId }: Medium) =>
    [...before.media, ...after.media].some((medium) => medium.assetId === assetId && medium.mime.startsWith('image/'));
  const [first, second] = [gone.find(isPicture), come.find(isPicture)];
  const list = (version: VersionContentShape, marked: readonly Medium[], word: string, tone: string) => (
    <ul className="grid grid-cols-2 gap-2">
      {version.media.map((medium, index) => {
        const isMarked = marked.some(({ assetId }) => assetId === medium.assetId);
        return (
          <li key={`${medium.assetId} ${index}`} className={`min-w-0 ${isMarked ? `outline-2 outline-offset-2 rounded-md ${tone}` : ''}`}>
            <Preview medium={medium} frame={fillShape(wholeFrame(medium), '1:1')} source={`/api/files/${medium.assetId}`} />
            <p className="text-[12.5px] text-muted truncate" title={medium.name}>
              {isMarked && <strong className="text-ink">{word} · </strong>}
              {medium.name}
            </p>
          </li>
        );
      })}
      {version.media.length === 0 && <li className="text-muted">None</li>}
    </ul>
  );
  return (
    <>
      {first && second && (
        <div className="mb-2">
          <Choice
            label="How pictures are compared"
            value={how}
            options={[
              ['beside', 'Beside each other'],
              ['over', 'One over the other'],
            ]}
            onChange={setHow}
          />
        </div>
      )}
      {how === 'over' && first && second ? (
        <Over before={first} after={second} />
      ) : (
        <Two
          before={before}
          after={after}
          left={list(before, gone, 'gone', 'outline-rhubarb')}
          right={list(after, come, 'new', 'outline-pine')}
        />
      )}
    </>
  );
}

/** Two pictures in one place: how much is seen of the later one is set by hand. */
function Over({ before, after }: { before: Medium; after: Medium }) {
  const [share, setShare] = useState(50);
  const image = (medium: Medium) => `/api/files/${medium.assetId}?width=1080`;
  return (
    <div className="max-w-xl">
      <div className="relative rounded-md overflow-hidden bg-sunk">
        <img src={image(before)} alt={before.alt || before.name} className="w-full block" />
        <img
          src={image(after)}
          alt={after.alt || after.name}
          className="absolute inset-0 size-full object-contain"
          style={{ opacity: share / 100 }}
        />
      </div>
      <label className="flex items-center gap-3 mt-2 text-[13px]">
        {before.name}
        <input
          type="range"
          min={0}
          max={100}
          value={share}
          aria-label="How much is seen of the later picture"
          aria-valuetext={`${share} %`}
          className="flex-1 accent-pine"
          onChange={({ target }) => setShare(Number(target.value))}
        />
        {after.name}
      </label>
    </div>
  );
}
