const SIDES = ['top', 'right', 'bottom', 'left'] as const;
const margins = SIDES.map((side) => `margin-${side}`);
const paddings = SIDES.map((side) => `padding-${side}`);
const borders = SIDES.flatMap((side) => ['width', 'style', 'color'].map((part) => `border-${side}-${part}`));

/** What attributes of former days say of how an element looks, as the HTML standard has it (“Rendering”): longhands by attribute. */
const SAID_BY: Readonly<Record<string, readonly string[]>> = {
  align: ['text-align', 'float', 'vertical-align', 'margin-left', 'margin-right'],
  background: ['background-image'],
  bgcolor: ['background-color'],
  border: borders,
  bordercolor: borders.filter((name) => name.endsWith('color')),
  cellspacing: ['border-spacing'],
  color: ['color'],
  face: ['font-family'],
  height: ['height'],
  hspace: ['margin-left', 'margin-right'],
  nowrap: ['white-space-collapse', 'text-wrap-mode'],
  size: ['font-size', 'height'],
  text: ['color'],
  type: ['list-style-type'],
  valign: ['vertical-align'],
  vspace: ['margin-top', 'margin-bottom'],
  width: ['width'],
  ...Object.fromEntries(
    ['leftmargin', 'topmargin', 'marginwidth', 'marginheight'].map((name) => [name, margins]),
  ),
};
/** The same of rules between parts of a page. */
const SAID_OF_RULES: Readonly<Record<string, readonly string[]>> = {
  color: [...borders, 'background-color'],
  noshade: [...borders, 'background-color'],
  size: [...borders, 'height'],
};
/** The same of tables, for their cells. */
const SAID_OF_CELLS: Readonly<Record<string, readonly string[]>> = {
  border: borders,
  cellpadding: paddings,
  rules: borders,
};
/** What says something else of fields and buttons. */
const CONTROLS: ReadonlySet<string> = new Set([
  'input',
  'button',
  'select',
  'textarea',
  'option',
  'meter',
  'progress',
]);

/** The longhands that attributes of an element, or of the table that it is a cell of, may have set. */
export function saidByAttributes(element: Element): readonly string[] {
  if (element.namespaceURI !== 'http://www.w3.org/1999/xhtml' || CONTROLS.has(element.localName)) return [];
  const isRule = element.localName === 'hr';
  const own = element
    .getAttributeNames()
    .flatMap((name) => [...(SAID_BY[name] ?? []), ...((isRule && SAID_OF_RULES[name]) || [])]);
  if (element.localName !== 'td' && element.localName !== 'th') return own;
  const table = element.closest('table')?.getAttributeNames() ?? [];
  return [...own, ...table.flatMap((name) => SAID_OF_CELLS[name] ?? [])];
}

/** Where what stands in an element is put, texts and parts alike, as only attributes can say. */
const PUT = /^-(?:webkit|moz)-(left|center|right)$/;

/**
 * The margins of a part that an element around it puts to some side, since an attribute says so of texts and parts alike; null
 * where none does, or where the part is as wide as there is room.
 */
export function marginsByAlignment(element: Element): Readonly<Record<string, string>> | null {
  const parent = element.parentElement;
  const view = element.ownerDocument.defaultView!;
  const [, side] = (parent && PUT.exec(view.getComputedStyle(parent).textAlign)) || [];
  if (!side || side === 'left') return null;
  const { display, float, position, marginLeft, marginRight } = view.getComputedStyle(element);
  const isPart = /^(?:block|table|flex|grid|flow-root|list-item)$/.test(display);
  if (!isPart || float !== 'none' || /absolute|fixed/.test(position)) return null;
  if (element.getBoundingClientRect().width >= parent!.clientWidth) return null;
  const isSaid = parseFloat(marginLeft) > 0 || parseFloat(marginRight) > 0;
  return isSaid ? null : { 'margin-left': 'auto', ...(side === 'center' ? { 'margin-right': 'auto' } : {}) };
}
