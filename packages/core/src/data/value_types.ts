import type { FieldType } from '../model/app.ts';

const MONTH =
  '(?:jan(?:uary)?|feb(?:ruary)?|mar(?:ch)?|apr(?:il)?|may|june?|july?|aug(?:ust)?|sept?(?:ember)?|oct(?:ober)?|nov(?:ember)?|dec(?:ember)?)';
const DAY = '(?:mon|tue(?:s)?|wed(?:nes)?|thu(?:rs)?|fri|sat(?:ur)?|sun)(?:day)?';
const CURRENCY = '(?:[$€£¥₹]|\\b(?:usd|eur|gbp|chf|jpy|inr|aud|cad)\\b)';
const AMOUNT = "[-+]?\\s?\\d[\\d ,.']*(?:\\s?[kmb]n?)?";

/** What a single value is, the first that fits. */
const PATTERNS: readonly (readonly [FieldType, RegExp])[] = [
  ['email', /^[^\s@]+@[^\s@]+\.[a-z]{2,}$/i],
  ['link', /^(https?:\/\/|www\.)\S+$/i],
  [
    'money',
    new RegExp(
      `^[-+(]?\\s?(?:${CURRENCY}\\s?${AMOUNT}(?:\\s?${CURRENCY})?|${AMOUNT}\\s?${CURRENCY})\\)?$`,
      'i',
    ),
  ],
  ['percent', /^[-+]?\d+([.,]\d+)?\s?%$/],
  ['time', /^\d{1,2}(:\d{2}(:\d{2})?(\s?[ap]\.?m\.?)?|[:.]?\d{0,2}\s?[ap]\.?m\.?)$/i],
  [
    'date',
    new RegExp(
      `^(?:(?:${DAY}),?\\s+)?(?:\\d{1,4}[-/.]\\d{1,2}[-/.]\\d{1,4}(?:[ T]\\d{1,2}:\\d{2}.*)?|\\d{1,2}(?:st|nd|rd|th)?\\.?\\s+(?:of\\s+)?${MONTH}\\.?(?:,?\\s+\\d{2,4})?(?:,?\\s+\\d{1,2}:\\d{2}.*)?|${MONTH}\\.?,?\\s+\\d{1,2}(?:st|nd|rd|th)?(?:,?\\s+\\d{2,4})?(?:,?\\s+\\d{1,2}:\\d{2}.*)?|${MONTH}\\.?,?\\s+\\d{4})$`,
      'i',
    ),
  ],
  [
    'date',
    new RegExp(
      `^(?:today|tomorrow|yesterday|just now|(?:an?|\\d+)\\s+(?:sec(?:ond)?|min(?:ute)?|h(?:ou)?r|day|week|month|year)s?\\s+(?:ago|left))$`,
      'i',
    ),
  ],
  [
    'date',
    new RegExp(
      `^(?:(?:due|back|since|until|from|by|on)\\s+)?(?:${DAY})(?:,?\\s+\\d{1,2}\\s+${MONTH})?$`,
      'i',
    ),
  ],
  ['yes-no', /^(yes|no|true|false|on|off)$/i],
  ['phone', /^\+?\(?\d[\d\s().-]{6,}\d$/],
  ['number', /^[-+]?\d{1,3}(?:[ ,.']\d{3})*(?:[.,]\d+)?$|^[-+]?\d+(?:[.,]\d+)?$/],
];

/** What one value is by itself. */
export function typeOfValue(value: string): FieldType {
  const text = value.trim();
  return PATTERNS.find(([, pattern]) => pattern.test(text))?.[0] ?? 'text';
}

/** Shares of the values that have to be of a type for all to be. */
const MOST = 0.75;
/** A choice has so many values at most, of so few words, and they recur. */
const CHOICES = { most: 8, words: 3, letters: 24 };
const SAYS_CHOICE =
  /\b(status|state|stage|type|kind|category|role|priority|level|condition|gender|plan|tag|label|availability|progress|result|payment|department)\b/i;

/** What the values of a field are, by what most of them look like and by what the field is called. */
export function typeOfValues(values: readonly string[], label = ''): FieldType {
  const said = values.map((value) => value.trim()).filter((value) => value !== '' && !/^[-–—]+$/.test(value));
  if (!said.length) return 'text';
  const counts = new Map<FieldType, number>();
  for (const value of said) {
    const type = typeOfValue(value);
    counts.set(type, (counts.get(type) ?? 0) + 1);
  }
  const [[type, count]] = [...counts].sort((a, b) => b[1] - a[1]);
  if (type !== 'text' && count >= said.length * MOST) {
    // A number that begins with nothing is what something is known by.
    if (type === 'number' && said.some((value) => /^0\d+$/.test(value))) return 'text';
    // A column of bare numbers is money, a percentage or a phone where its head says so.
    if (type === 'number' && /\b(price|cost|salary|amount|total|fee|budget|revenue|balance)\b/i.test(label))
      return said.some((value) => /[.,]\d{2}$/.test(value)) ? 'money' : 'number';
    if (
      type === 'phone' &&
      !/\b(phone|mobile|tel|fax|contact)\b/i.test(label) &&
      said.every((value) => /^[\d.]+$/.test(value))
    )
      return 'number';
    return type;
  }
  return isChoice(said, label) ? 'one-of' : 'text';
}

function isChoice(said: readonly string[], label: string): boolean {
  const distinct = new Set(said.map((value) => value.toLowerCase()));
  const isShort = said.every(
    (value) => value.length <= CHOICES.letters && value.split(/\s+/).length <= CHOICES.words,
  );
  if (!isShort || distinct.size > CHOICES.most) return false;
  if (SAYS_CHOICE.test(label)) return true;
  return distinct.size > 1 && said.length >= 4 && distinct.size <= said.length / 2;
}

/** What a field can be, as far as it is told: each once, in the order in which they come. */
export const choicesOf = (values: readonly string[]): string[] => [
  ...new Set(values.map((value) => value.trim()).filter(Boolean)),
];
