import { fitOf, IN_A_ROW, OWED, pillarIn, SAME_SUBJECT, type SlottingCase } from './fit.js';

/** A filling of slots as an integer programme, for a solver that proves the best. */
export interface SlottingModel {
  /** in the LP format: maximise */
  readonly lp: string;
  /** by the names of the programme's binary columns: which candidate in which slot */
  readonly choices: ReadonlyMap<string, { readonly slotId: string; readonly candidateId: string }>;
  /** what the objective is without: runs among what is fixed */
  readonly fixedValue: number;
}

/** The terms of a sum, as the LP format has them. */
const sum = (terms: readonly (readonly [number, string])[]): string =>
  terms.map(([factor, name]) => `${factor < 0 ? '-' : '+'} ${Math.abs(factor)} ${name}`).join(' ');

/** What should not stand in two slots one after the other. */
interface Repeated {
  /** how its columns begin */
  readonly name: string;
  readonly cost: number;
  /** what is fixed, by slot */
  readonly fixed: readonly (string | null)[];
  /** by slot and what it is: the columns that put it there */
  readonly inSlot: readonly Map<string, string[]>[];
}

const put = (lists: Map<string, string[]> | undefined, key: string | null, name: string): void => {
  if (key !== null) lists?.set(key, [...(lists.get(key) ?? []), name]);
};

/** Adds a column for every two neighbours that may be the same. @returns what those cost that are fixed */
function addRepeated({ name: letter, cost, fixed, inSlot }: Repeated, objective: [number, string][], rows: string[]): number {
  let fixedValue = 0;
  for (let at = 0; at + 1 < inSlot.length; at += 1) {
    const pair = [fixed[at] ?? null, fixed[at + 1] ?? null];
    const all = new Set([...(inSlot[at]?.keys() ?? []), ...(inSlot[at + 1]?.keys() ?? []), ...pair]);
    for (const [index, one] of [...all].entries()) {
      if (one === null) continue;
      const always = pair.filter((other) => other === one).length;
      const names = [...(inSlot[at]?.get(one) ?? []), ...(inSlot[at + 1]?.get(one) ?? [])];
      if (always === 2) fixedValue += cost;
      else if (names.length > 0) {
        objective.push([cost, `${letter}${at}_${index}`]);
        rows.push(`${sum(names.map((name) => [1, name]))} - ${letter}${at}_${index} <= ${1 - always}`);
      }
    }
  }
  return fixedValue;
}

/**
 * Says what `valueOf` says, in linear terms: x(s,c) puts candidate c into slot s; z(p) counts the pieces of a pillar up to what is owed; y(s,p) is 1
 * where slot s and the next hold the same pillar, w(s,t) where they are about the same subject.
 * @see the LP file format, as HiGHS reads it
 */
export function modelOf({ slots, candidates, owed, readyByFormat }: SlottingCase): SlottingModel {
  const choices = new Map<string, { slotId: string; candidateId: string }>();
  const objective: [number, string][] = [];
  const rows: string[] = [];
  const bounds: string[] = [];
  const uses = new Map<string, string[]>(candidates.map(({ id }) => [id, []]));
  const ofPillar = new Map<string, string[]>();
  const inRow: Repeated = {
    name: 'y',
    cost: IN_A_ROW,
    fixed: slots.map(({ taken }) => taken?.pillarId ?? null),
    inSlot: slots.map(() => new Map()),
  };
  const alike: Repeated = {
    name: 'w',
    cost: SAME_SUBJECT,
    fixed: slots.map(({ taken }) => taken?.subjectId ?? null),
    inSlot: slots.map(() => new Map()),
  };
  for (const [at, slot] of slots.entries()) {
    if (slot.taken) continue;
    const here: string[] = [];
    for (const [which, candidate] of candidates.entries()) {
      const fit = fitOf(slot, candidate, readyByFormat);
      if (!fit.fits) continue;
      const name = `x${at}_${which}`;
      choices.set(name, { slotId: slot.id, candidateId: candidate.id });
      objective.push([fit.points, name]);
      here.push(name);
      uses.get(candidate.id)?.push(name);
      const pillar = pillarIn(slot, candidate);
      put(ofPillar, pillar, name);
      put(inRow.inSlot[at], pillar, name);
      put(alike.inSlot[at], candidate.subjectId, name);
    }
    if (here.length > 0) rows.push(`${sum(here.map((name) => [1, name]))} <= 1`);
  }
  for (const names of uses.values()) if (names.length > 1) rows.push(`${sum(names.map((name) => [1, name]))} <= 1`);
  for (const [index, [pillar, names]] of [...ofPillar].entries()) {
    const wanted = Math.max(0, owed[pillar] ?? 0);
    if (wanted === 0) continue;
    objective.push([OWED, `z${index}`]);
    bounds.push(`0 <= z${index} <= ${wanted}`);
    rows.push(`z${index} ${sum(names.map((name) => [-1, name]))} <= 0`);
  }
  const fixedValue = addRepeated(inRow, objective, rows) + addRepeated(alike, objective, rows);
  const lines = rows.map((row, index) => ` r${index}: ${row}`);
  const lp = [
    'Maximize',
    ` value: ${objective.length > 0 ? sum(objective) : '0 none'}`,
    'Subject To',
    ...(lines.length > 0 ? lines : [' r0: none <= 1']),
    'Bounds',
    ...bounds.map((bound) => ` ${bound}`),
    'Binary',
    ...[...choices.keys()].map((name) => ` ${name}`),
    'End',
    '',
  ].join('\n');
  return { lp, choices, fixedValue };
}

/** The filling that a solver found: candidates by slot. @param columns the programme's columns with their values */
export const chosenIn = ({ choices }: SlottingModel, columns: Readonly<Record<string, number>>): Record<string, string> =>
  Object.fromEntries(
    [...choices].flatMap(([name, { slotId, candidateId }]) => ((columns[name] ?? 0) > 0.5 ? [[slotId, candidateId]] : [])),
  );
