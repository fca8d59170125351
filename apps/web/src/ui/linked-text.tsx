import { Fragment } from 'react';

const ADDRESS = /(https?:\/\/[^\s<>"]+[^\s<>".,;:!?)\]}'’])/g;

/** A text in which full addresses lead there. */
export function LinkedText({ text }: { text: string }) {
  return (
    <>
      {text.split(ADDRESS).map((part, index) =>
        index % 2 === 1 ? (
          <a key={index} href={part} target="_blank" rel="noreferrer noopener" className="text-pine underline break-all">
            {part}
          </a>
        ) : (
          <Fragment key={index}>{part}</Fragment>
        ),
      )}
    </>
  );
}
