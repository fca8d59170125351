import { Graph, layout } from '@dagrejs/dagre';
import type { RouteStepBody } from '@zesting/contract';
import { isByClient, leastDays, routeProblems } from '@zesting/core';
import { count } from '../../lib/format';
import { stepFieldsId } from './step-fields';

const BOX = { width: 148, height: 46 };

/** A route as a picture: what is done in turn, side by side, and where ways join. A step of it leads to its fields. */
export function RoutePicture({ steps }: { steps: readonly RouteStepBody[] }) {
  // a ring has no picture, and what is waited for must be there
  const isWhole = !routeProblems(steps).some(({ code }) => code === 'route.circular' || code === 'route.predecessor_unknown');
  if (steps.length === 0 || !isWhole) return null;
  const { boxes, lines, width, height } = placed(steps);
  return (
    <figure className="mb-4">
      <div className="overflow-x-auto rounded-md border border-line bg-paper">
        <div className="relative mx-auto" style={{ width, height }}>
          <svg aria-hidden width={width} height={height} className="absolute inset-0 text-line-strong">
            {lines.map((line) => (
              <path key={line} d={line} fill="none" stroke="currentColor" strokeWidth={1.5} />
            ))}
          </svg>
          <ol aria-label="The route as a picture">
            {boxes.map(({ step, x, y }) => (
              <li key={step.key} className="absolute" style={{ left: x, top: y, ...BOX }}>
                <button
                  type="button"
                  className={`block size-full rounded-md border px-2 text-left bg-card hover:bg-sunk ${isByClient(step.kind) ? 'border-lake' : step.kind === 'check' ? 'border-dashed border-line-strong' : 'border-line-strong'} ${step.optional ? 'border-dotted' : ''}`}
                  onClick={() => document.getElementById(stepFieldsId(step.key))?.querySelector('input')?.focus()}
                >
                  <span className="block font-medium text-[13px] truncate">{step.title || 'unnamed'}</span>
                  <span className="block text-muted text-[12px] truncate">
                    {count(step.spanDays, 'day')}
                    {isByClient(step.kind) ? ', the client' : step.skill ? `, ${step.skill}` : ''}
                  </span>
                </button>
              </li>
            ))}
          </ol>
        </div>
      </div>
      <figcaption className="text-muted text-[12.5px] mt-1">
        {count(leastDays(steps), 'working day')} at the fewest, by its longest way.
      </figcaption>
    </figure>
  );
}

const GAP = 14;

/** Where each step stands, and the lines between them, from left to right. */
function placed(steps: readonly RouteStepBody[]) {
  const graph = new Graph();
  graph.setGraph({ rankdir: 'LR', nodesep: GAP, ranksep: 34, marginx: GAP, marginy: GAP });
  graph.setDefaultEdgeLabel(() => ({}));
  for (const { key } of steps) graph.setNode(key, { ...BOX });
  for (const { key, after } of steps) for (const before of after) graph.setEdge(before, key);
  layout(graph);
  const boxes = steps.map((step) => {
    const { x = 0, y = 0 } = graph.node(step.key);
    return { step, x: x - BOX.width / 2, y: y - BOX.height / 2 };
  });
  const lines = graph.edges().map((edge) => {
    const [from, to] = [graph.node(edge.v), graph.node(edge.w)];
    const [x1, y1, x2, y2] = [(from.x ?? 0) + BOX.width / 2, from.y ?? 0, (to.x ?? 0) - BOX.width / 2, to.y ?? 0];
    const middle = (x1 + x2) / 2;
    return `M${x1} ${y1}C${middle} ${y1} ${middle} ${y2} ${x2} ${y2}`;
  });
  const { width = 0, height = 0 } = graph.graph();
  return { boxes, lines, width, height };
}
