import { readProse, type ProseBlock, type ProseItem, type ReadRun } from '@zesting/core';
import { Fragment, useMemo, type ReactNode } from 'react';

interface ProseBlocksProps {
  readonly source: string;
  /** the level of the page's heading above it, from 1 */
  readonly under?: number;
  /** how the words of a run are drawn; usually as they are */
  readonly drawRun?: (run: ReadRun) => ReactNode;
  /** whether links can be pressed */
  readonly linksLead?: boolean;
}

/** A copy that is laid out, as it reads: headings, lists, links, emphasis. */
export function Prose({ source, under }: Pick<ProseBlocksProps, 'source' | 'under'>) {
  return (
    <div className="prose">
      <ProseBlocks source={source} under={under} />
    </div>
  );
}

export function ProseBlocks({ source, under = 2, drawRun = ({ text }) => text, linksLead = true }: ProseBlocksProps) {
  const blocks = useMemo(() => withRanks(readProse(source)), [source]);
  const draw: Draw = { under, drawRun, linksLead };
  return blocks.map(({ block, rank }, index) => <Block key={index} block={block} rank={rank} draw={draw} />);
}

/** Headings with their rank in the outline: one that leaves out a level stands only one below what was before. */
function withRanks(blocks: readonly ProseBlock<ReadRun>[]): { readonly block: ProseBlock<ReadRun>; readonly rank: number }[] {
  let rank = 0;
  return blocks.map((block) => {
    if (block.kind === 'heading') rank = Math.min(block.level, rank + 1);
    return { block, rank };
  });
}

interface Draw {
  readonly under: number;
  readonly drawRun: (run: ReadRun) => ReactNode;
  readonly linksLead: boolean;
}

const HEADINGS = ['h1', 'h2', 'h3', 'h4', 'h5', 'h6'] as const;

function Block({ block, rank = 1, draw }: { block: ProseBlock<ReadRun>; rank?: number; draw: Draw }) {
  if (block.kind === 'paragraph')
    return (
      <p>
        <Runs runs={block.runs} draw={draw} />
      </p>
    );
  if (block.kind === 'heading') {
    const Heading = HEADINGS[draw.under + rank - 1] ?? 'h6';
    return (
      <Heading data-level={block.level}>
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
