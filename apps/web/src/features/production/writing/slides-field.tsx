import type { MediumShape } from '@zesting/contract';
import { countCharacters, slidesText, slideWords, usualMedia } from '@zesting/core';
import { useState } from 'react';
import { ListEditor } from '../../../ui/list-editor';
import { SlidePicture } from '../../../ui/places';

interface SlidesFieldProps {
  readonly name: string;
  /** what helps, or is wrong */
  readonly help: string;
  readonly text: string;
  readonly media: readonly MediumShape[];
  readonly readOnly: boolean;
  /** @param media where pictures moved with their slides, or went with one */
  readonly onChange: (text: string, media?: MediumShape[]) => void;
}

interface Slide {
  readonly words: string;
  readonly medium: MediumShape | undefined;
}

/** The words of slides as they stand in a text, by their places: none where a slide has none. */
function wordsIn(text: string): string[] {
  const words = new Map(slideWords(text).map((slide) => [slide.number, slide.words]));
  return Array.from({ length: Math.max(0, ...words.keys()) }, (_, index) => words.get(index + 1) ?? '');
}

/** The words of slides, each beside its picture: moved and taken out together. What is typed stands as it is typed until the text is another. */
export function SlidesField({ name, help, text, media, readOnly, onChange }: SlidesFieldProps) {
  const pictures = usualMedia(media);
  const [typed, setTyped] = useState<{ readonly text: string; readonly words: readonly string[] }>();
  // an empty slide at the end, and blanks at the ends of words, are nothing in the text: kept while it is written here
  const words = typed && typed.text === text ? typed.words : wordsIn(text);
  // a picture beyond them is a slide without words yet
  const slides = Array.from({ length: Math.max(words.length, pictures.length) }, (_, index): Slide => ({
    words: words[index] ?? '',
    medium: pictures[index],
  }));
  const put = (next: readonly Slide[]) => {
    const nextText = slidesText(next.map((slide) => slide.words));
    setTyped({ text: nextText, words: next.map((slide) => slide.words) });
    const moved = next.flatMap(({ medium }) => medium ?? []);
    const isMoved = moved.length !== pictures.length || moved.some((medium, index) => medium.assetId !== pictures[index]?.assetId);
    if (isMoved) onChange(nextText, [...moved, ...media.filter((medium) => !pictures.includes(medium))]);
    else onChange(nextText);
  };
  const numbered = slides.map((slide, index) => ({ ...slide, number: index + 1 }));
  return (
    <div className="mb-3.5">
      <p className="font-medium">{name}</p>
      {help && <p className="text-muted text-[13px] mb-1">{help}</p>}
      <fieldset disabled={readOnly}>
        <legend className="sr-only">{name}</legend>
        <ListEditor<Slide & { readonly number: number }>
          label={name}
          ordered
          items={numbered}
          onChange={put}
          nameOf={({ number }) => `slide ${number}`}
          make={() => ({ words: '', medium: undefined, number: numbered.length + 1 })}
          addWords="Add a slide"
          empty="No slide yet."
        >
          {(slide, change) => (
            <div className="grid grid-cols-[auto_minmax(0,1fr)] gap-3 items-start">
              <SlidePicture number={slide.number} media={media} sourceOf={({ assetId }) => `/api/files/${assetId}`} />
              <div className="min-w-0">
                <textarea
                  className="field field-sizing-content min-h-16"
                  rows={2}
                  aria-label={`Words of slide ${slide.number}`}
                  spellCheck
                  readOnly={readOnly}
                  value={slide.words}
                  onChange={({ target }) => change({ words: target.value })}
                />
                <span className="text-muted text-[12px]">{countCharacters(slide.words.trim())} characters</span>
              </div>
            </div>
          )}
        </ListEditor>
      </fieldset>
    </div>
  );
}
