/** What a form is filled in with, by the names of its fields. */
export type Values = Record<string, string>;

export type Field = HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement;

/** The fields of a form that are sent with it. */
export const fieldsOf = (form: HTMLFormElement): Field[] =>
  [...form.elements].filter(
    (element): element is Field =>
      (element instanceof HTMLInputElement ||
        element instanceof HTMLSelectElement ||
        element instanceof HTMLTextAreaElement) &&
      element.name !== '' &&
      element.willValidate,
  );

/** What a form is filled in with; of a box to tick whether it is, `yes` or `no`. */
export function valuesOf(form: HTMLFormElement): Values {
  const values: Values = {};
  for (const field of fieldsOf(form)) {
    if (!(field instanceof HTMLInputElement)) values[field.name] = field.value;
    else if (field.type === 'checkbox') values[field.name] = field.checked ? 'yes' : 'no';
    else if (field.type !== 'radio' || field.checked) values[field.name] = field.value.trim();
  }
  return values;
}

/** What is wrong with what a field is filled in with; nothing where it is right. */
export function problemOf(field: Field): string {
  const { same, message } = field.dataset;
  const other = same ? field.form?.elements.namedItem(same) : null;
  if (other && 'value' in other && other.value !== field.value)
    return message ?? 'This is not the same.';
  if (field.validity.valid) return '';
  // How something has to look is said by the title of its field.
  const asked = field.validity.patternMismatch ? field.title : '';
  return message ?? (asked || field.validationMessage);
}

/** What is wrong with the fields of a form, by their names. */
export function problemsOf(fields: readonly Field[]): Values {
  const problems: Values = {};
  for (const field of fields) problems[field.name] ||= problemOf(field);
  return problems;
}

/** Whether a form is about to be sent: a message that comes or goes meanwhile would move what is pressed. */
export const isToSend = (next: EventTarget | null): boolean =>
  next instanceof HTMLButtonElement && next.type === 'submit';

/** Under this name stands what is wrong with a form as a whole. */
export const WHOLE = '';

/** What is wrong with a form that was refused: what the error says of its fields, else what it says. */
export function refusedBy(error: unknown, fields: readonly Field[]): Values {
  const said = error instanceof Error && 'fields' in error ? (error.fields as Values) : {};
  const known = Object.entries(said).filter(([name]) =>
    fields.some((field) => field.name === name),
  );
  if (known.length) return Object.fromEntries(known);
  return { [WHOLE]: error instanceof Error ? error.message : String(error) };
}

/** The id of what is said of a field. */
export const messageId = (form: string, field: string): string => `${form}-${field}-message`;

/** Ties fields to what is said of them, so that it is heard with them. */
export function tie(fields: readonly Field[], problems: Values, form: string): void {
  for (const field of fields) {
    if (problems[field.name]) {
      field.setAttribute('aria-invalid', 'true');
      field.setAttribute('aria-describedby', messageId(form, field.name));
    } else {
      field.removeAttribute('aria-invalid');
      field.removeAttribute('aria-describedby');
    }
  }
}
