import type { Declarations } from '../model/design.ts';

/** How a container places what is in it. */
export type Flow = 'stack' | 'row' | 'grid' | 'free' | 'text';
/** How an element takes its size along one axis. */
export type Sizing = 'fixed' | 'stretch' | 'fit';

/** What the style of an element says of its layout, in the words that people decide in. */
export interface Arrangement {
  readonly flow: Flow;
  readonly wraps: boolean;
  readonly width: Sizing;
  readonly height: Sizing;
  readonly pinned: 'none' | 'sticky-top' | 'sticky-bottom' | 'fixed-top' | 'fixed-bottom';
  readonly scrolls: 'none' | 'vertical' | 'horizontal';
  readonly isFullHeight: boolean;
  readonly keepsSafe: boolean;
}

/** Reads an arrangement from the style of an element and that of its parent. */
export function arrangementOf(base: Declarations, parent: Declarations | null): Arrangement {
  const display = base.display ?? '';
  const isRowParent =
    /flex/.test(parent?.display ?? '') && !/column/.test(parent?.['flex-direction'] ?? 'row');
  const grows = base['flex-grow'] === '1' || /^1\b/.test(base.flex ?? '');
  const pinned = ((): Arrangement['pinned'] => {
    const edge = base.bottom !== undefined && base.top === undefined ? 'bottom' : 'top';
    if (base.position === 'sticky') return `sticky-${edge}`;
    return base.position === 'fixed' ? `fixed-${edge}` : 'none';
  })();
  return {
    flow: /flex/.test(display)
      ? /column/.test(base['flex-direction'] ?? '')
        ? 'stack'
        : 'row'
      : /grid/.test(display)
        ? 'grid'
        : base.position === 'relative' && display === ''
          ? 'free'
          : 'text',
    wraps: base['flex-wrap'] === 'wrap',
    width: isContentSize(base.width)
      ? 'fit'
      : base.width?.endsWith('px')
        ? 'fixed'
        : isRowParent && !grows
          ? 'fit'
          : 'stretch',
    height: base.height?.endsWith('px')
      ? 'fixed'
      : base.height === '100%' || (!isRowParent && grows)
        ? 'stretch'
        : 'fit',
    pinned,
    scrolls: /auto|scroll/.test(base['overflow-y'] ?? '')
      ? 'vertical'
      : /auto|scroll/.test(base['overflow-x'] ?? '')
        ? 'horizontal'
        : 'none',
    isFullHeight: /100d?vh/.test(base['min-height'] ?? ''),
    keepsSafe: /safe-area/.test(`${base['padding-bottom'] ?? ''}${base['padding-top'] ?? ''}`),
  };
}

const isContentSize = (width: string | undefined): boolean => /^(max|min|fit)-content$/.test(width ?? '');

/** The declarations that make an element flow like this. An empty value takes a property back to what it is by itself. */
export function flowDeclarations(flow: Flow): Declarations {
  switch (flow) {
    case 'stack':
      return { display: 'flex', 'flex-direction': 'column' };
    case 'row':
      return { display: 'flex', 'flex-direction': 'row' };
    case 'grid':
      return { display: 'grid', 'grid-template-columns': 'repeat(auto-fill, minmax(160px, 1fr))' };
    case 'free':
      return { display: 'block', position: 'relative' };
    case 'text':
      return { display: 'block' };
  }
}

/** The declarations that give an element a size of this kind along one axis. */
export function sizingDeclarations(
  axis: 'width' | 'height',
  sizing: Sizing,
  now: number,
  isMainAxis: boolean,
): Declarations {
  switch (sizing) {
    case 'fixed':
      return {
        [axis]: `${Math.round(now)}px`,
        ...(isMainAxis ? { 'flex-grow': '0', 'flex-shrink': '0' } : {}),
      };
    case 'stretch':
      return isMainAxis
        ? {
            [axis]: 'auto',
            'flex-grow': '1',
            'flex-shrink': '1',
            'flex-basis': '0px',
            [`min-${axis}`]: '0px',
          }
        : { [axis]: axis === 'width' ? 'auto' : '100%', 'align-self': 'stretch' };
    case 'fit':
      return {
        [axis]: axis === 'width' ? 'max-content' : 'auto',
        ...(isMainAxis ? { 'flex-grow': '0', 'flex-basis': 'auto' } : {}),
        ...(axis === 'width' && !isMainAxis ? { 'max-width': '100%' } : {}),
      };
  }
}

/** The declarations that pin an element to an edge. */
export function pinDeclarations(pinned: Arrangement['pinned']): Declarations {
  if (pinned === 'none') return { position: 'static', top: 'auto', bottom: 'auto' };
  const [position, edge] = pinned.split('-');
  const other = edge === 'top' ? 'bottom' : 'top';
  return {
    position,
    [edge]: '0px',
    [other]: 'auto',
    'z-index': '2',
    ...(position === 'fixed' ? { left: '0px', right: '0px' } : {}),
  };
}

/** The declarations that let an element scroll what does not fit. */
export function scrollDeclarations(scrolls: Arrangement['scrolls']): Declarations {
  return {
    'overflow-y': scrolls === 'vertical' ? 'auto' : 'visible',
    'overflow-x': scrolls === 'horizontal' ? 'auto' : 'visible',
  };
}
