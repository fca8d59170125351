import type { AnswerProblem, FormField } from '@zesting/core';
import type { Language } from '../language/language';

/** What is wrong with an answer, said so that it can be put right. */
export function problemWords(problem: AnswerProblem, field: FormField, { t, dayWords }: Language): string {
  const limit = (value: number | undefined) => ({ limit: value ?? 0 });
  const day = (on: string | undefined) => ({ day: on === undefined ? '' : on === 'today' ? t('today') : dayWords(on) });
  switch (problem) {
    case 'required':
      return t('This is needed.');
    case 'too_long':
      return t('This is too long.');
    case 'too_short':
      return t('At least {{limit}} characters are needed.', limit(field.min));
    case 'too_many':
      return field.max === undefined ? t('These are too many.') : t('At most {{limit}} can be chosen.', limit(field.max));
    case 'too_few':
      return t('At least {{limit}} are needed.', limit(field.min));
    case 'too_large':
      return t('At most {{limit}}.', limit(field.max));
    case 'too_small':
      return t('At least {{limit}}.', limit(field.min));
    case 'not_a_number':
      return t('This is not a number.');
    case 'not_whole':
      return t('A whole number is needed.');
    case 'not_an_option':
      return t('Choose one of the options.');
    case 'not_a_date':
      return t('This is not a date.');
    case 'in_the_past':
      return t('This day has passed.');
    case 'too_early':
      return t('Not before {{day}}.', day(field.notBefore));
    case 'too_late':
      return t('Not after {{day}}.', day(field.notAfter));
    case 'turned_round':
      return t('The last day lies before the first.');
    case 'not_a_link':
      return t('A full address is needed, beginning with https://');
    case 'not_an_email':
      return t('This is not an e-mail address.');
    case 'not_a_phone':
      return t('This is not a telephone number.');
    case 'file_kind':
      return t('One of the files is of a kind that is not taken here.');
    case 'file_too_large':
      return t('One of the files is too large: at most {{limit}} MB.', limit(field.megabytes));
    case 'unknown_field':
      return t('The form has changed: load the page again.');
    case 'wrong_shape':
      return t('This cannot be read.');
  }
}
