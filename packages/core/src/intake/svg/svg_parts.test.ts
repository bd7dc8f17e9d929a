import fc from 'fast-check';
import {
  boxAround,
  identity,
  isUpright,
  mapBox,
  mapPoint,
  multiply,
  parseTransform,
  scaleOf,
} from './matrix.ts';
import { withOpacity } from './paint.ts';
import { lengthOf, pathPoints, shapeBounds } from './shape.ts';
import { styleOf, SvgStyleSheet } from './style.ts';
import { childElements, parseXml, textContent, type XmlElement } from './xml.ts';

describe('XML', () => {
  test('paths count elements only, from the root', () => {
    const root = parseXml('<svg>text<!-- no --><g><a/>more<b/></g><c/></svg>');
    const paths: string[] = [];
    const visit = (e: XmlElement): void => {
      paths.push(`${e.name} ${e.path}`);
      childElements(e).forEach(visit);
    };
    visit(root);
    expect(paths).toEqual(['svg ', 'g 0', 'a 0/0', 'b 0/1', 'c 1']);
  });

  test.each([
    ['<svg><g></svg>', /line 1/],
    ['<svg', /unclosed|unexpected end|not complete|line 1/i],
    ['', /root|document/i],
    ['<svg>'.repeat(300), /nested more than 200 deep/],
  ])('%.20s is refused with its place', (text, message) => expect(() => parseXml(text)).toThrow(message));

  test('custom entities are data lost, not expanded and not a failure', () => {
    const bomb =
      '<!DOCTYPE svg [<!ENTITY a "ha"><!ENTITY b "&a;&a;&a;&a;">]><svg><text>&b; there</text></svg>';
    expect(textContent(parseXml(bomb))).not.toContain('haha');
  });

  test('prefixes of SVG and XLink fold away', () => {
    const root = parseXml('<svg:svg xmlns:svg="s" xmlns:xlink="x"><svg:use xlink:href="#a"/></svg:svg>');
    expect(root.name).toBe('svg');
    expect(childElements(root)[0].attributes.href).toBe('#a');
  });
});

describe('transforms', () => {
  test.each([
    ['translate(10)', [1, 1], [11, 1]],
    ['translate(10,20) scale(2)', [1, 1], [12, 22]],
    ['scale(2) translate(10 20)', [1, 1], [22, 42]],
    ['rotate(90)', [1, 0], [0, 1]],
    ['rotate(90 10 10)', [10, 0], [20, 10]],
    ['matrix(1 0 0 1 5 6)', [0, 0], [5, 6]],
    ['skewX(45)', [0, 1], [1, 1]],
    ['nonsense(1)', [3, 4], [3, 4]],
  ] as const)('%s maps %j to %j', (text, [x, y], [ex, ey]) => {
    const [mx, my] = mapPoint(parseTransform(text), x, y);
    expect(mx).toBeCloseTo(ex);
    expect(my).toBeCloseTo(ey);
  });

  test('composition is applying one after the other', () => {
    const number = fc.double({ min: -50, max: 50, noNaN: true });
    const matrix = fc.tuple(number, number, number, number, number, number);
    fc.assert(
      fc.property(matrix, matrix, number, number, (m, n, x, y) => {
        const [ax, ay] = mapPoint(multiply(m, n), x, y);
        const [bx, by] = mapPoint(m, ...mapPoint(n, x, y));
        expect(Math.abs(ax - bx)).toBeLessThan(1e-6 * (1 + Math.abs(ax)));
        expect(Math.abs(ay - by)).toBeLessThan(1e-6 * (1 + Math.abs(ay)));
      }),
    );
  });

  test('upright is what keeps boxes boxes', () => {
    expect(
      [
        identity,
        parseTransform('scale(2 3)'),
        parseTransform('rotate(1)'),
        parseTransform('scale(-1 1)'),
      ].map(isUpright),
    ).toEqual([true, true, false, false]);
    expect(scaleOf(parseTransform('scale(2 8)'))).toBe(4);
    expect(mapBox(parseTransform('rotate(90)'), { x: 0, y: 0, width: 2, height: 1 })).toMatchObject({
      x: -1,
      width: expect.closeTo(1),
      height: 2,
    });
  });
});

describe('shapes', () => {
  const element = (text: string): XmlElement => parseXml(text);
  test.each([
    ['<rect x="1" y="2" width="3" height="4"/>', { x: 1, y: 2, width: 3, height: 4 }],
    ['<circle cx="5" cy="5" r="2"/>', { x: 3, y: 3, width: 4, height: 4 }],
    ['<ellipse cx="5" cy="5" rx="2" ry="1"/>', { x: 3, y: 4, width: 4, height: 2 }],
    ['<line x1="4" y1="1" x2="0" y2="3"/>', { x: 0, y: 1, width: 4, height: 2 }],
    ['<polygon points="0,0 4,0 2,3"/>', { x: 0, y: 0, width: 4, height: 3 }],
    ['<path d="M1 1h3v2H1z"/>', { x: 1, y: 1, width: 3, height: 2 }],
    ['<path d="m1 1 2 2 1-3"/>', { x: 1, y: 0, width: 3, height: 3 }],
  ])('%s', (text, box) => expect(shapeBounds(element(text))).toEqual(box));

  test('curves reach as far as they do, not as their control points', () => {
    const arc = boxAround(pathPoints('M0 10a10 10 0 0120 0'));
    expect(arc.y).toBeGreaterThan(-0.2);
    expect(arc.y).toBeLessThan(0.3);
    expect(arc.width).toBe(20);
    const bow = boxAround(pathPoints('M0 0C0 40 30 40 30 0'));
    expect(bow.height).toBeCloseTo(30, 0);
    expect(boxAround(pathPoints('M0 0Q15 40 30 0')).height).toBeCloseTo(20, 0);
  });

  test('any text as path data ends, and gives numbers', () => {
    fc.assert(
      fc.property(fc.string(), (d) =>
        pathPoints(`M0 0${d}`).forEach(([x, y]) => expect(Number.isNaN(x + y)).toBe(false)),
      ),
    );
  });

  test.each([
    ['12', 12],
    ['12px', 12],
    ['1in', 96],
    ['50%', 100],
    ['-.5', -0.5],
    ['auto', 7],
    [undefined, 7],
  ])('length %s', (text, px) => expect(lengthOf(text, 200, 7)).toBe(px));
});

describe('style', () => {
  const root = parseXml(
    '<svg><style>.a { fill: red } g .a { stroke: blue } g > rect { opacity: .5 } #x { fill: lime } a:hover { fill: pink } rect, .b { display: none }</style><g fill="green" opacity=".3"><rect id="x" class="a" style="stroke-width: 3; fill: inherit"/></g><path class="a" fill="black"/></svg>',
  );
  const sheet = new SvgStyleSheet(textContent(childElements(root)[0]), () => {});
  const [, group, path] = childElements(root);
  const [rect] = childElements(group);

  test('inherits what is inherited, and nothing else', () => {
    const inherited = styleOf(group, [root], {}, sheet);
    const style = styleOf(rect, [root, group], inherited, sheet);
    expect(style).toMatchObject({
      fill: 'green',
      stroke: 'blue',
      'stroke-width': '3',
      opacity: '.5',
      display: 'none',
    });
  });

  test('rules win over attributes, and only where they match', () => {
    expect(styleOf(path, [root], {}, sheet)).toEqual({ fill: 'red' });
  });

  test.each([
    ['#123456', undefined, '#123456'],
    ['#123456', '0.5', 'rgb(18 52 86 / 0.5)'],
    ['#fff', '50%', 'rgb(255 255 255 / 0.5)'],
    ['red', '.2', 'color-mix(in srgb, red 20%, transparent)'],
  ])('%s at %s is %s', (color, opacity, expected) => expect(withOpacity(color, opacity)).toBe(expected));
});
