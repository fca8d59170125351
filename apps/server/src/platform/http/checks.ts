import type { IncomingMessage } from 'node:http';
import type { NextFunction, Request, RequestHandler, Response } from 'express';
import { isDay, MONTH, VIEW_PAGES } from '@zesting/contract';
import {
  DANGERS,
  isId,
  KEPT_FILE_KINDS,
  PIECE_ORDERS,
  PIECE_STAGES,
  PIECES_SHOWN,
  SHEET_COLUMNS,
  SHEET_GROUPS,
  STANDS,
} from '@zesting/core';
import { Problem } from './problem.js';

/** The deepest that a body may be nested: the contract's deepest is a form's condition of five levels, thirteen. */
const DEPTH = 16;
/** The longest text in an address's query. */
const QUERY_LENGTH = 300;

const isCount = (text: string): boolean => /^[1-9]\d{0,5}$/.test(text);
const oneOf = (names: readonly string[], text: string): boolean => names.includes(text);

/** What each name in a query may hold. Names that no route asks for are let pass. */
const QUERY: Readonly<Record<string, (text: string) => boolean>> = {
  clientId: isId,
  personId: isId,
  placementId: isId,
  cursor: isId,
  formId: isId,
  ownerId: isId,
  routeId: isId,
  pillarId: isId,
  formatId: isId,
  channelId: isId,
  campaignId: isId,
  leadId: isId,
  ideaId: isId,
  pieceId: isId,
  page: (text) => oneOf(VIEW_PAGES, text),
  archived: (text) => text === 'yes',
  on: isDay,
  behind: (text) => text === 'yes',
  mine: (text) => text === 'yes',
  given: (text) => text === 'yes',
  renew: (text) => text === 'yes',
  kept: (text) => oneOf(KEPT_FILE_KINDS, text),
  older: isCount,
  newer: isCount,
  type: (text) => text === 'png' || text === 'svg',
  state: (text) => text === 'waiting' || text === 'left' || text === 'automatic',
  shown: (text) => oneOf(PIECES_SHOWN, text) || text === 'ideas',
  stands: (text) => oneOf(STANDS, text),
  order: (text) => oneOf(PIECE_ORDERS, text) || text === 'danger',
  columns: (text) => text.split(',').every((name) => oneOf(SHEET_COLUMNS, name)),
  by: (text) => oneOf(SHEET_COLUMNS, text),
  down: (text) => text === 'yes',
  group: (text) => oneOf(SHEET_GROUPS, text),
  stage: (text) => oneOf(PIECE_STAGES, text),
  danger: (text) => oneOf(DANGERS, text),
  doer: (text) => text === 'nobody' || isId(text),
  before: (text) => /^\d{1,18}$/.test(text),
  month: (text) => MONTH.test(text),
  theme: (text) => text === 'on' || text === 'off',
  dues: (text) => text === 'yes',
  asked: (text) => text === 'open' || text === 'closed',
  idea: (text) => oneOf(['open', 'dropped', 'used'], text),
  after: (text) => /^\d{1,6}$/.test(text),
  width: (text) => /^\d{1,5}$/.test(text),
  from: isDay,
  to: isDay,
};

/** A text that a database or a screen could not take: a NUL, or half of a character (a lone surrogate). */
const isBroken = (text: string): boolean => text.includes('\0') || /\p{Surrogate}/u.test(text);

const invalid = (field: string, ruleName: string): Problem => Problem.of('http.invalid', { errors: { [field]: [ruleName] } });

/**
 * Refuses, before anything is parsed, a JSON body that is nested deeper than any of ours: taking it apart would cost more than it is worth.
 * For `express.json({ verify })`.
 */
export function refuseDeepJson(_request: IncomingMessage, _response: unknown, body: Buffer): void {
  let depth = 0;
  let inText = false;
  for (let at = 0; at < body.length; at++) {
    const byte = body[at];
    if (inText) {
      if (byte === 0x5c) at++;
      else if (byte === 0x22) inText = false;
    } else if (byte === 0x22) inText = true;
    else if (byte === 0x5b || byte === 0x7b) {
      if (++depth > DEPTH) throw invalid('body', 'isNotTooDeep');
    } else if (byte === 0x5d || byte === 0x7d) depth--;
  }
}

/** The first thing in a value that no field of ours takes: its path and the rule that it breaks. */
function firstFault(value: unknown, path: string): [field: string, rule: string] | undefined {
  if (typeof value === 'string') return isBroken(value) ? [path, 'isText'] : undefined;
  if (Array.isArray(value)) {
    for (const [index, item] of value.entries()) {
      if (Array.isArray(item)) return [`${path}.${index}`, 'isNotList'];
      const fault = firstFault(item, `${path}.${index}`);
      if (fault) return fault;
    }
  } else if (typeof value === 'object' && value !== null)
    for (const [key, item] of Object.entries(value)) {
      const field = path === '' ? key : `${path}.${key}`;
      if (isBroken(key) || key === '__proto__' || key === 'constructor' || key === 'prototype') return [path || 'body', 'isFieldName'];
      const fault = firstFault(item, field);
      if (fault) return fault;
    }
  return undefined;
}

/** The one place that refuses what could be meant by nobody: broken texts, lists in lists, queries of another kind than their name says. */
export const checkInput: RequestHandler = (request: Request, _response: Response, next: NextFunction): void => {
  const fault = bodyFault(request.body) ?? addressFault(request.originalUrl) ?? queryFault(request.query);
  if (!fault) request.body = withoutControls(request.body);
  next(fault && invalid(...fault));
};

/** Control characters but for tabs and line ends: they come along when text is pasted, show nowhere, and break feeds and files. */
// eslint-disable-next-line no-control-regex -- they are what is looked for
const CONTROLS = /[\u0001-\u0008\u000b\u000c\u000e-\u001f\u007f]/g;

/** The same value with texts that hold no control characters. */
function withoutControls(value: unknown): unknown {
  if (typeof value === 'string') return value.replace(CONTROLS, '');
  if (Array.isArray(value)) return value.map(withoutControls);
  if (typeof value !== 'object' || value === null || Object.getPrototypeOf(value) !== Object.prototype) return value;
  return Object.fromEntries(Object.entries(value).map(([key, item]) => [key, withoutControls(item)]));
}

function bodyFault(body: unknown): [string, string] | undefined {
  if (Array.isArray(body)) return ['body', 'isObject'];
  return typeof body === 'object' && body !== null ? firstFault(body, '') : undefined;
}

function addressFault(address: string): [string, string] | undefined {
  try {
    return isBroken(decodeURIComponent(address)) ? ['address', 'isText'] : undefined;
  } catch {
    return ['address', 'isText'];
  }
}

function queryFault(query: Request['query']): [string, string] | undefined {
  for (const [name, value] of Object.entries(query)) {
    if (typeof value !== 'string' || value.length > QUERY_LENGTH) return [name, 'isOneText'];
    const holds = Object.hasOwn(QUERY, name) ? QUERY[name] : undefined;
    if (holds && !holds(value)) return [name, name === 'from' || name === 'to' ? 'isDay' : 'isOfItsKind'];
  }
  return undefined;
}
