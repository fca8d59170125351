import { linesIn, readProse, slideWords, type Pointed } from '@zesting/core';
import { useRef, type KeyboardEvent, type ReactNode } from 'react';
import { ProseBlocks } from '../prose';
import { MarkNumber, type Mark } from './mark';
import { cutByRuns, isWordForWord, segmentsOf, type Segment } from './segments';

interface MarkedTextProps {
  readonly text: string;
  /** it has headings, lists, links and emphasis, and is drawn so */
  readonly isLaidOut?: boolean;
  /** it is the words of slides, and drawn so: each with what this gives for its number, such as its picture */
  readonly slide?: ((number: number) => ReactNode) | undefined;
  /** the level of the page's heading above it */
  readonly under?: number;
  /** whose own copy it is; null: what channels share */
  readonly channelId: string | null;
  /** which of the piece's texts it is; undefined: the copy */
  readonly textKey?: string | undefined;
  /** those that stand in this text */
  readonly marks: readonly Mark[];
  readonly onChoose?: ((id: string) => void) | undefined;
  /** a stretch is being pointed at: a sentence by a click or Enter, any words by marking them */
  readonly onPick?: ((pointed: Pointed) => void) | undefined;
}

/** A piece's copy, or another of its texts, with the remarks that stand in it. */
export function MarkedText({ text, isLaidOut = false, slide, under, channelId, textKey, marks, onChoose, onPick }: MarkedTextProps) {
  const whole = useRef<HTMLDivElement>(null);
  const pick = (from: number, to: number) =>
    onPick?.({ kind: 'stretch', channelId, ...(textKey === undefined ? {} : { textKey }), from, to, words: text.slice(from, to) });
  const pickMarked = () => {
    const marked = whole.current && onPick ? markedIn(whole.current) : null;
    if (!marked) return;
    const words = text.slice(marked.from, marked.to);
    const from = marked.from + words.length - words.trimStart().length;
    if (words.trim() === '') return;
    window.getSelection()?.removeAllRanges();
    pick(from, from + words.trim().length);
  };
  const segments = segmentsOf(text, marks);
  const view = (segment: Segment) => (
    <SegmentView
      key={segment.from}
      segment={segment}
      text={text}
      marks={marks}
      onChoose={onChoose}
      onPick={onPick && segment.sentence ? () => segment.sentence && pick(segment.sentence.from, segment.sentence.to) : undefined}
    />
  );
  // a short sentence between others is hit by a finger all the same
  const apart = onPick ? 'leading-[28px]' : '';
  if (slide) {
    const slides = slideWords(text);
    const seen = cutByRuns(
      text,
      segments,
      slides.map(({ words, from, to }) => ({ text: words, from, to, isStrong: false, isEmphasis: false, link: null })),
    );
    return (
      <div ref={whole} onPointerUp={pickMarked}>
        <ol className="grid grid-cols-[minmax(0,1fr)] gap-2">
          {slides.map(({ number, from, to }) => (
            <li key={from} className="grid grid-cols-[auto_minmax(0,1fr)] gap-3 items-start">
              {slide(number)}
              <div className={`whitespace-pre-wrap break-words ${apart}`}>
                {seen.filter((segment) => from <= segment.from && segment.to <= to).map(view)}
              </div>
            </li>
          ))}
        </ol>
      </div>
    );
  }
  if (!isLaidOut)
    return (
      <div ref={whole} className={`whitespace-pre-wrap break-words ${apart}`} onPointerUp={pickMarked}>
        {segments.map(view)}
      </div>
    );
  const seen = cutByRuns(
    text,
    segments,
    readProse(text).flatMap((block) => linesIn(block).flat()),
  );
  return (
    <div ref={whole} className={`prose break-words ${onPick ? 'pointing' : ''}`} onPointerUp={pickMarked}>
      <ProseBlocks
        source={text}
        under={under}
        linksLead={!onPick}
        drawRun={(run) => (isWordForWord(run) ? seen.filter(({ from, to }) => run.from <= from && to <= run.to).map(view) : run.text)}
      />
    </div>
  );
}

interface SegmentViewProps {
  readonly segment: Segment;
  readonly text: string;
  readonly marks: readonly Mark[];
  readonly onChoose: ((id: string) => void) | undefined;
  readonly onPick: (() => void) | undefined;
}

function SegmentView({ segment, text, marks, onChoose, onPick }: SegmentViewProps) {
  const { from, to, markIds, ends, sentence } = segment;
  const words = text.slice(from, to);
  const here = marks.filter(({ id }) => markIds.includes(id));
  const ground = here.some(({ isChosen }) => isChosen)
    ? 'bg-lake-soft outline-2 outline-lake'
    : here.some(({ isDone }) => !isDone)
      ? 'bg-rind-soft border-b-2 border-rind'
      : here.length > 0
        ? 'border-b-2 border-dotted border-line-strong'
        : '';
  // of each sentence one part is reached by keyboard: its first
  const isFirst = sentence?.from === from;
  const pointing =
    onPick && sentence
      ? {
          role: 'button',
          tabIndex: isFirst ? 0 : -1,
          'aria-label': `Point at: ${sentence.words}`,
          onClick: onPick,
          onKeyDown: (event: KeyboardEvent) => {
            if (event.key !== 'Enter' && event.key !== ' ') return;
            event.preventDefault();
            onPick();
          },
        }
      : {};
  const look = `${ground} ${onPick && sentence ? 'cursor-pointer underline decoration-dotted decoration-lake underline-offset-4 hover:bg-lake-soft' : ''}`;
  return (
    <>
      {here.length > 0 ? (
        <mark data-from={from} className={`text-ink ${look}`} {...pointing}>
          {words}
        </mark>
      ) : (
        <span data-from={from} className={look} {...pointing}>
          {words}
        </span>
      )}
      {ends.map((mark) => (
        <span key={mark.id} className="ml-0.5 align-middle">
          <MarkNumber mark={mark} onChoose={onPick ? undefined : onChoose} />
        </span>
      ))}
    </>
  );
}

/** What is marked with mouse or finger inside of a text, in its characters; null where nothing is, or it goes beyond the text. */
function markedIn(whole: HTMLElement): { from: number; to: number } | null {
  const selection = window.getSelection();
  if (!selection || selection.isCollapsed || selection.rangeCount === 0) return null;
  const { startContainer, startOffset, endContainer, endOffset } = selection.getRangeAt(0);
  const [from, to] = [characterAt(whole, startContainer, startOffset), characterAt(whole, endContainer, endOffset)];
  return from === null || to === null || from >= to ? null : { from, to };
}

function characterAt(whole: HTMLElement, node: Node, offset: number): number | null {
  const segment = (node instanceof Element ? node : node.parentElement)?.closest<HTMLElement>('[data-from]');
  if (!segment || !whole.contains(segment) || node.nodeType !== Node.TEXT_NODE) return null;
  return Number(segment.dataset['from']) + offset;
}
