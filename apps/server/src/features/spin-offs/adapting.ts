import { handedOn, canonical, madeAnew, sha256Hex, type Adapting, type FactPiece, type Facts, type Json } from '@zesting/core';
import type { SpreadLine } from './entities/spread.entity.js';
import type { SpinOff } from './entities/spin-off.entity.js';

/** How a line of a spread changes what a source hands on. @param name what the output is called, where that is not the line's name */
export const adaptingOf = (line: SpreadLine, name = line.name): Adapting => ({
  name,
  shape: line.shape,
  callToAction: line.callToAction,
  anew: madeAnew(line),
});

/** What a source hands on to an output that was made, on the channels that it was made for. */
export const handedTo = (spinOff: SpinOff, source: FactPiece): Facts => handedOn(source, Object.keys(spinOff.seen.link), spinOff);

/** A mark of what a source hands on: what was looked at is told from what is there now. */
export const markOf = (facts: Facts): string => sha256Hex(canonical(facts as unknown as Json)).slice(0, 32); // plain data
