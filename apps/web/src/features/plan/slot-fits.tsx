import {
  isFree,
  slotKey,
  type FillSlotBody,
  type PlanMonthShape,
  type PlanRouteShape,
  type PlanSlotShape,
  type SlotCandidateShape,
} from '@zesting/contract';
import { rankFor, type Fit, type SlottingCase } from '@zesting/core';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { call } from '../../lib/api';
import { dayWords } from '../../lib/format';
import { useClients, useWrite } from '../../lib/queries';
import { Button } from '../../ui/button';
import { filledWith, lacksFormat, misfitWords, reasonWords } from './plan-case';
import type { Names } from './use-names';
import { sayFilled, useFill } from './use-proposal';

interface SlotFitsProps {
  readonly clientId: string;
  readonly slot: PlanSlotShape;
  readonly plan: PlanMonthShape;
  readonly names: Names;
  readonly whole: SlottingCase;
  /** whether it was chosen on this page, and not by its address */
  readonly isChosenHere: boolean;
  /** called once the slot is filled, and this goes */
  readonly onFilled: () => void;
}

/** So many of what fits are shown, and so many of what does not. */
const FITS = 6;
const MISFITS = 12;

/** What could stand in the chosen slot, the best first, each with its reason; or a piece without an idea, or nothing there this once. */
export function SlotFits({ clientId, slot, plan, names, whole, isChosenHere, onFilled }: SlotFitsProps) {
  const [shown, setShown] = useState(FITS);
  const [routeId, setRouteId] = useState('');
  const head = useRef<HTMLHeadingElement>(null);
  // who chose another slot goes on here: on a phone it stands below all of them
  useEffect(() => {
    if (isChosenHere) head.current?.focus();
  }, [slot.ruleId, slot.on, isChosenHere]);
  const fill = useFill(clientId);
  const open = whole.slots.find(({ id }) => id === slotKey(slot));
  if (!open || !isFree(slot)) return null;
  const ranked = rankFor(open, whole).flatMap(({ candidateId, fit }) => {
    const candidate = plan.candidates.find(({ id }) => id === candidateId);
    return candidate ? [{ candidate, fit }] : [];
  });
  const fits = ranked.filter(({ fit }) => fit.fits);
  const routes = plan.routes.filter(({ formatId }) => slot.formatId === null || formatId === slot.formatId);
  const route = routes.find((one) => one.routeId === routeId) ?? routes[0];
  const put = (body: Omit<FillSlotBody, 'ruleId' | 'on'>) =>
    fill.mutate([{ ruleId: slot.ruleId, on: slot.on, ...body }], {
      onSuccess: (filled) => {
        sayFilled(filled);
        onFilled();
      },
    });
  return (
    <section aria-label="What fits" className="card border-pine p-3">
      <h2 ref={head} tabIndex={-1} className="text-base">
        {dayWords(slot.on)}, {slot.at}
      </h2>
      <p className="text-muted text-[13px] mb-2">
        {slot.channelName}
        {slot.theme !== null && ` · “${slot.theme}”`}
      </p>
      {fits.length === 0 && <p className="text-[13px] mb-2">Nothing on the shelf fits here.</p>}
      <ul>
        {fits.slice(0, shown).map(({ candidate, fit }) => (
          <CandidateLine key={candidate.id} candidate={candidate} why={whyOf(fit, slot, candidate, names)}>
            <Button
              className="min-h-7 text-[13px]"
              disabled={fill.isPending || (lacksFormat(slot, candidate) && !route)}
              aria-label={`Put here: “${candidate.title}”`}
              onClick={() => put(bodyOf(candidate, lacksFormat(slot, candidate) ? route?.routeId : undefined))}
            >
              Put here
            </Button>
          </CandidateLine>
        ))}
      </ul>
      {fits.length > shown && (
        <Button look="quiet" className="-ml-3" onClick={() => setShown(fits.length)}>
          Show {fits.length - shown} more
        </Button>
      )}
      <Misfits misfits={ranked.filter(({ fit }) => !fit.fits)} slot={slot} plan={plan} names={names} />
      <Otherwise slot={slot} routes={routes} route={route} busy={fill.isPending} onRoute={setRouteId} onPut={put} />
    </section>
  );
}

/** What is put into a slot. @param routeId how it is made, where nothing else says it */
const bodyOf = (candidate: SlotCandidateShape, routeId: string | undefined): Omit<FillSlotBody, 'ruleId' | 'on'> => ({
  ...filledWith(candidate),
  ...(candidate.kind === 'idea' && routeId !== undefined ? { routeId } : {}),
});

const whyOf = (fit: Fit, slot: PlanSlotShape, candidate: SlotCandidateShape, names: Names): string =>
  fit.fits ? reasonWords(fit.reasons, slot, candidate, names).join(' · ') : '';

function CandidateLine({ candidate, why, children }: { candidate: SlotCandidateShape; why: string; children?: ReactNode }) {
  const { to } = useClients();
  const path = candidate.pieceId === null ? `/plan/ideas?idea=${candidate.id}` : `/pieces/${candidate.pieceId}`;
  return (
    <li className="flex items-start gap-2 py-1.5 border-t border-line text-[13px]">
      <span className="flex-1 min-w-0">
        <Link to={to(path)} className="font-medium no-underline hover:underline break-words">
          {candidate.title}
        </Link>
        {why && <span className="block text-muted">{why}</span>}
      </span>
      {children}
    </li>
  );
}

function Misfits({
  misfits,
  slot,
  plan,
  names,
}: { misfits: readonly { candidate: SlotCandidateShape; fit: Fit }[] } & Pick<SlotFitsProps, 'slot' | 'plan' | 'names'>) {
  const [isOpen, setOpen] = useState(false);
  if (misfits.length === 0) return null;
  const readyOf = ({ readyOn, formatId }: SlotCandidateShape) =>
    readyOn ?? plan.routes.find((route) => route.formatId === (formatId ?? slot.formatId))?.readyOn ?? null;
  return (
    <>
      <button type="button" className="text-muted underline min-h-6 text-[13px]" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
        {misfits.length === 1 ? 'One does not fit' : `${misfits.length} do not fit`}
      </button>
      {isOpen && (
        <ul>
          {misfits.slice(0, MISFITS).map(({ candidate, fit }) => (
            <CandidateLine
              key={candidate.id}
              candidate={candidate}
              why={fit.fits ? '' : misfitWords(fit.misfit, slot, candidate, readyOf(candidate), names)}
            />
          ))}
        </ul>
      )}
    </>
  );
}

interface OtherwiseProps {
  readonly slot: PlanSlotShape;
  readonly routes: readonly PlanRouteShape[];
  /** how it is made, unless an idea or the slot says it */
  readonly route: PlanRouteShape | undefined;
  readonly busy: boolean;
  readonly onRoute: (routeId: string) => void;
  readonly onPut: (body: Omit<FillSlotBody, 'ruleId' | 'on'>) => void;
}

/** A piece that is still to be thought of, or nothing there this once. */
function Otherwise({ slot, routes, route, busy, onRoute, onPut }: OtherwiseProps) {
  const leaveOut = useWrite((isLeftOut: boolean) =>
    call(`/rhythm/${slot.ruleId}/exception`, { method: 'PUT', body: { on: slot.on, isLeftOut } }),
  );
  const leave = () =>
    leaveOut.mutate(true, {
      onSuccess: () => toast('This slot is left out', { action: { label: 'Undo', onClick: () => leaveOut.mutate(false) } }),
    });
  return (
    <div className="border-t border-line pt-2 mt-1 grid gap-2 text-[13px]">
      {route ? (
        <div className="flex gap-2">
          <select
            className="field min-h-7"
            aria-label="How it is made"
            value={route.routeId}
            onChange={(event) => onRoute(event.target.value)}
          >
            {routes.map((one) => (
              <option key={one.routeId} value={one.routeId}>
                {one.formatName === one.name ? one.name : `${one.formatName}: ${one.name}`}
              </option>
            ))}
          </select>
          <Button className="min-h-7 text-[13px]" disabled={busy} onClick={() => onPut({ routeId: route.routeId })}>
            Plan without an idea
          </Button>
        </div>
      ) : (
        <p className="text-muted">No route makes what this slot asks for.</p>
      )}
      {route?.readyOn && route.readyOn > slot.on && (
        <p className="text-rind">Begun today it would be ready on {dayWords(route.readyOn)}, too late for this slot.</p>
      )}
      <button type="button" className="justify-self-start text-pine underline min-h-6" disabled={leaveOut.isPending} onClick={leave}>
        Leave this slot out
      </button>
    </div>
  );
}
