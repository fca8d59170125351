import type { FormLanguage } from '@zesting/core';

/** What a requester is told by mail, each with its title and what somebody wrote, if anything. */
export interface RequesterWords {
  readonly hello: (firstName: string) => string;
  readonly see: string;
  readonly answer: string;
  readonly received: (number: number, clientName: string) => Told;
  readonly takenDown: (number: number, title: string) => Told;
  readonly filesLost: (count: number) => string;
  readonly asked: (title: string, text: string) => Told;
  readonly accepted: (title: string) => Told;
  readonly joined: (title: string) => Told;
  readonly declined: (title: string, reason: string) => Told;
  readonly kept: (title: string, note: string) => Told;
  readonly merged: (title: string) => Told;
  readonly reopened: (title: string) => Told;
}

export interface Told {
  readonly subject: string;
  readonly paragraphs: readonly string[];
}

const told = (subject: string, ...paragraphs: readonly string[]): Told => ({ subject, paragraphs: paragraphs.filter(Boolean) });

/** The mails to requesters, in the language in which they were asked. */
export const REQUESTER_WORDS: Readonly<Record<FormLanguage, RequesterWords>> = {
  en: {
    hello: (name) => `Hello ${name},`,
    see: 'See how it stands',
    answer: 'Answer it',
    received: (number, clientName) =>
      told(
        `We have your request no. ${number} for ${clientName}`,
        'Thank you.',
        `Request no. ${number} for ${clientName} has reached us. The page below shows how it stands.`,
      ),
    takenDown: (number, title) =>
      told(
        `We have your request no. ${number}`,
        `Thank you for your call. Your request “${title}” is taken down; the page below shows how it stands.`,
      ),
    filesLost: (count) => `${count === 1 ? 'One file' : `${count} files`} could not be kept: the kind is not taken, or it is damaged.`,
    asked: (title, text) => told(`A question about ${title}`, `We have a question about “${title}”:`, text),
    accepted: (title) => told(`Accepted: ${title}`, `“${title}” is accepted and planned.`),
    joined: (title) => told(`Accepted: ${title}`, `“${title}” is accepted: it becomes part of something that we are at.`),
    declined: (title, reason) => told(`Not taken on: ${title}`, `We cannot take on “${title}”.`, reason),
    kept: (title, note) => told(`Kept for later: ${title}`, `We do not plan “${title}” now, and keep it on our list of ideas.`, note),
    merged: (title) =>
      told(
        `Taken together: ${title}`,
        `“${title}” asks for the same as another request of yours or of a colleague, and is looked at together with it.`,
      ),
    reopened: (title) => told(`Looked at again: ${title}`, `We are looking at “${title}” again.`),
  },
  de: {
    hello: (name) => `Guten Tag ${name},`,
    see: 'So steht es darum',
    answer: 'Antworten',
    received: (number, clientName) =>
      told(
        `Ihre Anfrage Nr. ${number} für ${clientName} ist da`,
        'Vielen Dank.',
        `Die Anfrage Nr. ${number} für ${clientName} ist bei uns angekommen. Die Seite unten zeigt, wie es darum steht.`,
      ),
    takenDown: (number, title) =>
      told(
        `Ihre Anfrage Nr. ${number} ist da`,
        `Vielen Dank für Ihren Anruf. Ihre Anfrage „${title}“ ist aufgenommen; die Seite unten zeigt, wie es darum steht.`,
      ),
    filesLost: (count) =>
      count === 1
        ? 'Eine Datei konnte nicht behalten werden: Ihre Art wird nicht angenommen, oder sie ist beschädigt.'
        : `${count} Dateien konnten nicht behalten werden: Ihre Art wird nicht angenommen, oder sie sind beschädigt.`,
    asked: (title, text) => told(`Eine Frage zu ${title}`, `Wir haben eine Frage zu „${title}“:`, text),
    accepted: (title) => told(`Angenommen: ${title}`, `„${title}“ ist angenommen und eingeplant.`),
    joined: (title) => told(`Angenommen: ${title}`, `„${title}“ ist angenommen: Es wird Teil von etwas, woran wir schon sind.`),
    declined: (title, reason) => told(`Nicht übernommen: ${title}`, `Wir können „${title}“ nicht übernehmen.`, reason),
    kept: (title, note) =>
      told(`Für später behalten: ${title}`, `Wir planen „${title}“ jetzt nicht ein und behalten es auf unserer Ideenliste.`, note),
    merged: (title) =>
      told(
        `Zusammengelegt: ${title}`,
        `„${title}“ fragt nach demselben wie eine andere Anfrage von Ihnen oder aus Ihrem Haus und wird zusammen mit ihr angesehen.`,
      ),
    reopened: (title) => told(`Wird noch einmal angesehen: ${title}`, `Wir sehen uns „${title}“ noch einmal an.`),
  },
};
