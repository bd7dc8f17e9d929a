import { hasParent, type ScreenSight, type Sight } from '../roles/sight.ts';
import type { ProposedFormField } from './forms.ts';

/** What a form is for. */
export const FORM_PURPOSES = [
  'sign-in',
  'sign-up',
  'reset-password',
  'search',
  'filter',
  'subscribe',
  'send',
  'pay',
  'change',
  'add',
] as const;
export type FormPurpose = (typeof FORM_PURPOSES)[number];

/** What speaks for a purpose, in words of the button, of what stands over the form and of its fields. */
export function purposeOf(
  holder: Sight,
  fields: readonly ProposedFormField[],
  submit: string,
  screen: ScreenSight,
): readonly [purpose: FormPurpose | null, confidence: number, reason: string] {
  const passwords = fields.filter(({ type }) => type === 'password').length;
  const texts = fields.filter(({ type }) => type !== 'yes-no');
  const has = (pattern: RegExp): boolean =>
    fields.some(({ label, field }) => pattern.test(`${label} ${field}`));
  const title = headingOf(holder, screen);
  const scores = new Map<FormPurpose, { score: number; reasons: string[] }>();
  const add = (purpose: FormPurpose, score: number, reason: string): void => {
    const known = scores.get(purpose) ?? { score: 0, reasons: [] };
    scores.set(purpose, { score: known.score + score, reasons: [...known.reasons, reason] });
  };
  const words: readonly (readonly [FormPurpose, RegExp])[] = [
    ['sign-in', /\b(sign|log) ?(in|on)\b|\blogin\b|\bunlock\b/i],
    ['sign-up', /\bsign ?up\b|\bregister\b|\bjoin\b|\bcreate (an |your |my )?account\b|\bregistration\b/i],
    [
      'reset-password',
      /\b(reset|recover|forgot(ten)?|change|request new)( your| my| a| new)? password\b|\bpassword (reset|recovery)\b|\b(reset|recovery) (link|code|instructions|e-?mail)\b/i,
    ],
    ['search', /\b(search|find)\b/i],
    ['filter', /\b(filter|apply filters?|refine)\b/i],
    ['subscribe', /\bsubscribe\b|\bnewsletter\b|\bnotify me\b|\bkeep me posted\b/i],
    ['send', /\b(send|contact|message|comment|reply|feedback|get in touch|enquir|post comment|report)\w*\b/i],
    ['pay', /\b(pay|checkout|place order|buy now|purchase)\b/i],
    ['change', /\b(save|update|edit|change|settings|profile|preferences)\b/i],
    ['add', /\b(add|create|new|reserve|book|lend|submit|publish|post|upload|invite|request|order)\b/i],
  ];
  for (const [purpose, pattern] of words) {
    if (pattern.test(submit))
      add(
        purpose,
        purpose === 'add' || purpose === 'change' ? 2 : 3,
        `its button says “${submit.slice(0, 40)}”`,
      );
    if (title && pattern.test(title)) add(purpose, 1.2, `“${title.slice(0, 40)}” stands over it`);
  }
  // What is saved for the first time is added: nothing stands in its fields yet.
  const saves =
    /\bsave\b/i.test(submit) &&
    !/\b(update|edit|change|settings|profile|preferences|account)/i.test(`${submit} ${title}`);
  if (saves && texts.length > 1 && !texts.some((field) => isFilledIn(field, screen)))
    add('add', 1.5, 'nothing is filled in yet');
  if (passwords === 1 && texts.length <= 2) add('sign-in', 2.5, 'it asks who one is and for a password');
  if (passwords === 1 && texts.length > 2) add('sign-up', 1.5, 'it asks for more than a password');
  if (passwords > 1)
    add(
      has(/\b(old|current)\b/i) ? 'change' : has(/mail|user|name/i) ? 'sign-up' : 'reset-password',
      3,
      'it asks for a password twice',
    );
  if (has(/remember/i)) add('sign-in', 1.5, 'it offers to remember');
  if (has(/\b(terms|agree)\b/i)) add('sign-up', 1, 'it asks to agree');
  if (fields.length === 1 && fields[0].type === 'search')
    add('search', 4, 'a field to search stands by itself');
  if (fields.length <= 2 && has(/\b(search|find)\b/i)) add('search', 2.5, 'its field says search');
  if (fields.length === 1 && fields[0].type === 'email')
    add(
      /password|forgot|recover/i.test(`${title} ${submit}`) ? 'reset-password' : 'subscribe',
      2,
      'it asks for an address alone',
    );
  if (has(/\b(message|comment|subject|your question|enquiry)\b/i)) add('send', 2, 'it asks for a message');
  if (has(/\b(card number|cvc|cvv|expiry|expiration|card holder|name on card)\b/i))
    add('pay', 3, 'it asks for a card');
  const best = [...scores].sort((a, b) => b[1].score - a[1].score)[0];
  if (!best) {
    const isFilled = fields.length > 1 && holder.text.length > 0;
    return [null, isFilled ? 0.4 : 0.35, `${fields.length} fields are filled in together`];
  }
  const [purpose, { score, reasons }] = best;
  return [purpose, Math.min(0.95, 0.5 + score * 0.09), [...new Set(reasons)].slice(0, 2).join('; ')];
}

/** Whether a field is drawn with something in it that somebody would have entered. */
function isFilledIn({ element, type }: ProposedFormField, { byKey }: ScreenSight): boolean {
  if (type === 'number' || type === 'one-of') return false;
  const { attributes = {}, tag, text } = byKey.get(element)?.element ?? {};
  return (tag === 'input' ? (attributes.value ?? '') : (text ?? '')).trim() !== '';
}

/** The heading in a form, over it, or the only one of its screen. */
function headingOf(holder: Sight, screen: ScreenSight): string {
  const isHeading = (sight: Sight): boolean =>
    /^h[1-6]$/.test(sight.element.tag ?? '') ||
    / (title|heading|card title|login box msg) /.test(sight.words);
  const inside = screen.all.find(
    (sight) => isHeading(sight) && hasParent(sight, (parent) => parent === holder),
  );
  if (inside?.text) return inside.text;
  const { box } = holder.element;
  const over = screen.all
    .filter(
      (sight) =>
        sight.text !== '' &&
        sight.text.length < 60 &&
        (isHeading(sight) || sight.fontSize > screen.bodySize * 1.2) &&
        sight.element.box.y < box.y + 8 &&
        box.y - sight.element.box.y < 200,
    )
    .at(-1);
  return over?.text ?? '';
}
