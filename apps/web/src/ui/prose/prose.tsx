import { readProse, type ProseBlock, type ProseItem, type ReadRun } from '@zesting/core';
import { Fragment, useMemo, type ReactNode } from 'react';

interface ProseBlocksProps {
  readonly source: string;
  /** how the words of a run are drawn; usually as they are */
  readonly drawRun?: (run: ReadRun) => ReactNode;
  /** whether links can be pressed */
  readonly linksLead?: boolean;
}

/** A copy that is laid out, as it reads: headings, lists, links, emphasis. Its headings stand below a third one. */
export function Prose({ source, className = '' }: { readonly source: string; readonly className?: string }) {
  return (
    <div className={`prose ${className}`}>
      <ProseBlocks source={source} />
    </div>
  );
}

export function ProseBlocks({ source, drawRun = ({ text }) => text, linksLead = true }: ProseBlocksProps) {
  const blocks = useMemo(() => readProse(source), [source]);
  const draw: Draw = { drawRun, linksLead };
  return blocks.map((block, index) => <Block key={index} block={block} draw={draw} />);
}

interface Draw {
  readonly drawRun: (run: ReadRun) => ReactNode;
  readonly linksLead: boolean;
}

const HEADINGS = ['h4', 'h5', 'h6'] as const;

function Block({ block, draw }: { block: ProseBlock<ReadRun>; draw: Draw }) {
  if (block.kind === 'paragraph')
    return (
      <p>
        <Runs runs={block.runs} draw={draw} />
      </p>
    );
  if (block.kind === 'heading') {
    const Heading = HEADINGS[block.level - 1] ?? 'h6';
    return (
      <Heading>
        <Runs runs={block.runs} draw={draw} />
      </Heading>
    );
  }
  const List = block.isOrdered ? 'ol' : 'ul';
  return (
    <List>
      {block.items.map((item, index) => (
        <li key={index}>
          <Item item={item} draw={draw} />
        </li>
      ))}
    </List>
  );
}

const Item = ({ item, draw }: { item: ProseItem<ReadRun>; draw: Draw }) =>
  item.map((block, index) => <Block key={index} block={block} draw={draw} />);

function Runs({ runs, draw }: { runs: readonly ReadRun[]; draw: Draw }) {
  return runs.map((run) => {
    const words = run.text === '\n' ? <br /> : draw.drawRun(run);
    const emphasised = run.isEmphasis ? <em>{words}</em> : words;
    const strong = run.isStrong ? <strong>{emphasised}</strong> : emphasised;
    return (
      <Fragment key={run.from}>
        {run.link === null ? (
          strong
        ) : draw.linksLead ? (
          <Leads to={run.link}>{strong}</Leads>
        ) : (
          <span className="text-lake underline">{strong}</span>
        )}
      </Fragment>
    );
  });
}

const Leads = ({ to, children }: { to: string; children: ReactNode }) => (
  <a href={to} target="_blank" rel="noreferrer" className="text-lake underline break-words">
    {children}
  </a>
);
