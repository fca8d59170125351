import { closestCenter, DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors, type DragEndEvent } from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { isField, type FormItem, type FoundFault } from '@zesting/core';
import { ArrowDown, ArrowUp, ChevronDown, ChevronRight, Copy, GripVertical, Trash2 } from 'lucide-react';
import type { ComponentProps, ReactNode } from 'react';
import { IconButton } from '../../../ui/button';
import { Tag } from '../../../ui/tags';
import { KIND_WORDS } from './words';

interface ListProps {
  readonly items: readonly FormItem[];
  readonly faults: readonly FoundFault[];
  readonly chosen: string | null;
  readonly disabled: boolean;
  readonly onChoose: (key: string | null) => void;
  readonly onMove: (from: number, to: number) => void;
  readonly onCopy: (key: string) => void;
  readonly onRemove: (key: string) => void;
  /** what is set of the chosen one */
  readonly children: (item: FormItem) => ReactNode;
}

/** The items in their order, of which one is open. They are moved by dragging, by the keys on the handle, or by the arrows. */
export function QuestionList({ items, onMove, ...props }: ListProps) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates, scrollBehavior: 'auto' }),
  );
  const keys = items.map(({ key }) => key);
  const drop = ({ active, over }: DragEndEvent) => {
    if (over && active.id !== over.id) onMove(keys.indexOf(String(active.id)), keys.indexOf(String(over.id)));
  };
  const nameOf = (id: string | number) => `“${items.find(({ key }) => key === id)?.label ?? ''}”`;
  const placeOf = (id: string | number) => `place ${keys.indexOf(String(id)) + 1} of ${keys.length}`;
  const accessibility = {
    announcements: {
      onDragStart: ({ active }) => `${nameOf(active.id)} is held, ${placeOf(active.id)}.`,
      onDragOver: ({ active, over }) => (over ? `${nameOf(active.id)} would stand at ${placeOf(over.id)}.` : undefined),
      onDragEnd: ({ active, over }) => `${nameOf(active.id)} stands at ${placeOf(over?.id ?? active.id)}.`,
      onDragCancel: ({ active }) => `${nameOf(active.id)} stays where it was.`,
    },
    screenReaderInstructions: {
      draggable: 'Press Space to hold it, the arrows to move it, Space to put it down, Escape to leave it where it was.',
    },
  } satisfies ComponentProps<typeof DndContext>['accessibility'];
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} accessibility={accessibility} onDragEnd={drop}>
      <SortableContext items={keys} strategy={verticalListSortingStrategy}>
        <ol aria-label="Items of the form" className="grid gap-1">
          {items.map((item, at) => (
            <Row key={item.key} item={item} at={at} count={items.length} onMove={onMove} {...props} />
          ))}
        </ol>
      </SortableContext>
    </DndContext>
  );
}

type RowProps = Omit<ListProps, 'items'> & { readonly item: FormItem; readonly at: number; readonly count: number };

function Row({ item, at, count, faults, chosen, disabled, onChoose, onMove, onCopy, onRemove, children }: RowProps) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id: item.key,
    disabled,
  });
  const isOpen = chosen === item.key;
  const isFaulty = faults.some((fault) => fault.key === item.key || fault.chain?.includes(item.key));
  const name = item.label || 'this item';
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Transform.toString(transform), transition }}
      className={`card bg-card ${isDragging ? 'relative z-10 shadow-2xl' : ''} ${isOpen ? 'border-pine' : ''} ${item.kind === 'section' ? 'mt-2 first:mt-0' : ''}`}
    >
      <div className="flex items-center gap-1 pr-2.5">
        {!disabled && (
          <button
            type="button"
            ref={setActivatorNodeRef}
            {...attributes}
            {...listeners}
            aria-label={`Move ${name}`}
            title="Drag, or press Space and then the arrows"
            className="grid place-items-center w-7 min-h-10 cursor-grab text-muted touch-none"
          >
            <GripVertical size={15} aria-hidden />
          </button>
        )}
        <button
          type="button"
          aria-expanded={isOpen}
          className="flex-1 min-w-0 flex items-center gap-2 min-h-10 text-left"
          onClick={() => onChoose(isOpen ? null : item.key)}
        >
          {isOpen ? (
            <ChevronDown size={15} aria-hidden className="shrink-0" />
          ) : (
            <ChevronRight size={15} aria-hidden className="shrink-0" />
          )}
          <span
            className={`truncate ${item.kind === 'section' ? 'font-display font-semibold' : 'font-medium'} ${item.kind === 'text' ? 'italic' : ''}`}
          >
            {item.label || 'Without words'}
          </span>
          <Marks item={item} isFaulty={isFaulty} />
        </button>
        {!disabled && isOpen && (
          <span className="flex">
            <IconButton label={`Move ${name} up`} disabled={at === 0} onClick={() => onMove(at, at - 1)}>
              <ArrowUp size={15} aria-hidden />
            </IconButton>
            <IconButton label={`Move ${name} down`} disabled={at === count - 1} onClick={() => onMove(at, at + 1)}>
              <ArrowDown size={15} aria-hidden />
            </IconButton>
            <IconButton label={`Copy ${name}`} onClick={() => onCopy(item.key)}>
              <Copy size={15} aria-hidden />
            </IconButton>
            <IconButton label={`Take out ${name}`} onClick={() => onRemove(item.key)}>
              <Trash2 size={15} aria-hidden />
            </IconButton>
          </span>
        )}
      </div>
      {isOpen && <div className="border-t border-line p-3">{children(item)}</div>}
    </li>
  );
}

function Marks({ item, isFaulty }: { item: FormItem; isFaulty: boolean }) {
  const needed = isField(item) ? item.needed : undefined;
  return (
    <span className="ml-auto flex items-center gap-1.5 shrink-0 pl-2">
      {isFaulty && <Tag tone="rhubarb">To mend</Tag>}
      {item.shownIf && <Tag tone="lake">at times</Tag>}
      {needed !== undefined && needed !== false && <Tag tone="pine">{needed === true ? 'needed' : 'needed at times'}</Tag>}
      <span className="text-muted text-[12px] whitespace-nowrap">{KIND_WORDS[item.kind]}</span>
    </span>
  );
}
