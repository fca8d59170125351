/** What the heads of a mail say that tells people's mail from that of machines. */
export interface MailHeads {
  /** `Auto-Submitted` (RFC 3834 5) */
  readonly autoSubmitted: string | null;
  /** `Precedence`: common practice, older than the former */
  readonly precedence: string | null;
  /** whether `List-Id` is there (RFC 2919) */
  readonly isOfList: boolean;
  /** the media type of the whole */
  readonly contentType: string | null;
  /** whom the envelope names; empty for reports (RFC 5321 4.5.5) */
  readonly returnPath: string;
}

/**
 * Whether nobody wrote a mail: what answers by itself, reports, mass mail. Such mail is never answered, or two machines would write to each other
 * for ever.
 * @see RFC 3834 2, RFC 5321 4.5.5, RFC 6522
 */
export function isAutomatic({ autoSubmitted, precedence, isOfList, contentType, returnPath }: MailHeads): boolean {
  if (returnPath === '' || isOfList) return true;
  if (autoSubmitted !== null && !/^no\b/i.test(autoSubmitted.trim())) return true;
  if (precedence !== null && /^(bulk|junk|list|auto_reply)$/i.test(precedence.trim())) return true;
  return contentType?.toLowerCase().startsWith('multipart/report') ?? false;
}

const TITLE_MOST = 200;
/** What is put before a subject by answering or handing on: English, German; with a number in brackets (common practice). */
const PREFIX = /^(?:re|fwd?|aw|wg|antw)(?:\[\d{1,3}\])?\s*:\s*/i;

/** What a mail is about: its subject without the marks of answering and handing on, else its first line. Empty where it says nothing. */
export function titleOfMail(subject: string, text: string): string {
  let title = subject.replace(/\s+/g, ' ').trim();
  while (PREFIX.test(title)) title = title.replace(PREFIX, '');
  const first = text.split('\n').find((line) => line.trim() !== '' && !line.startsWith('>'));
  return [...(title === '' ? (first?.trim() ?? '') : title)].slice(0, TITLE_MOST).join('');
}

/** The word before a colon that marks a mail as an idea, in the languages of forms. */
const IDEA_MARK = /^\[?(?:idea|idee|ideen)\]?\s*:\s*/i;

/**
 * The idea in a mail whose subject begins with *Idea:* (*Idee:*), without that mark; where nothing follows it, its first line. Undefined where
 * the mail is marked as no idea; empty where it says nothing.
 */
export function ideaOfMail(subject: string, text: string): string | undefined {
  const title = titleOfMail(subject, '');
  const mark = IDEA_MARK.exec(title);
  return mark ? titleOfMail(title.slice(mark[0].length), text) : undefined;
}

/** Whole lines after which a mail repeats another one: as mail programs write them, in English and German (common practice). */
const SEPARATORS = [
  /^-{2,}\s*(original message|ursprüngliche nachricht|forwarded message|weitergeleitete nachricht)\s*-{2,}$/i,
  /^_{20,}$/,
];
const SAID_BEFORE = /^(on|am)\s.{5,400}\s(wrote|schrieb(\s.{1,200})?)\s?:$/i;
const HEAD_OF_ANOTHER = /^\*?(from|von):\*?\s/i;
const FURTHER_HEAD = /^\*?(sent|gesendet|date|datum|to|an|subject|betreff):\*?\s/i;
/** So many lines the line *On … wrote:* is broken into at most. */
const BROKEN_INTO = 3;

/**
 * What is new in an answer: without what it quotes (lines with `>`, RFC 3676 4.5), what it repeats below, and its signature (`-- `, RFC 3676 4.3).
 * Where nothing is left, the whole.
 */
export function newWords(text: string): string {
  const lines = text
    .replace(/\r\n?/g, '\n')
    .replace(/[\u00a0\u202f]/g, ' ')
    .split('\n');
  const kept: string[] = [];
  for (const [at, line] of lines.entries()) {
    if (line === '-- ' || line.trimEnd() === '--' || repeatsFrom(lines, at)) break;
    if (!line.startsWith('>')) kept.push(line.trimEnd());
  }
  const words = kept
    .join('\n')
    .replace(/\n{3,}/g, '\n\n')
    .trim();
  return words === '' ? text.trim() : words;
}

/** Whether what follows from a line on is another mail. */
function repeatsFrom(lines: readonly string[], at: number): boolean {
  const line = (lines[at] ?? '').trim();
  if (SEPARATORS.some((separator) => separator.test(line))) return true;
  if (HEAD_OF_ANOTHER.test(line)) return lines.slice(at + 1, at + 4).some((next) => FURTHER_HEAD.test(next.trim()));
  if (!/^(on|am)\s/i.test(line)) return false;
  for (let count = 1; count <= BROKEN_INTO; count++) {
    const joined = lines
      .slice(at, at + count)
      .map((part) => part.trim())
      .join(' ');
    if (joined.length <= 500 && SAID_BEFORE.test(joined)) return true;
  }
  return false;
}
