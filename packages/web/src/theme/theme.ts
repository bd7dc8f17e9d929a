import { createGlobalStyle } from 'styled-components';

/** Every colour of the interface by what it means. State is never told by colour alone. */
const light = {
  paper: '#e9ece6',
  sheet: '#fbfbf8',
  side: '#f3f5f0',
  ink: '#15211f',
  ink2: '#56635f',
  rule: '#c6cdc4',
  field: '#ffffff',
  fieldRule: '#87938c',
  lake: '#0a6767',
  lakeTint: '#d9e9e6',
  onLake: '#ffffff',
  red: '#b3261e',
  redTint: '#f6dfdb',
  ochre: '#8a5a00',
  onInk: '#fbfbf8',
  onInk2: '#b9c8c3',
  footer: '#15211f',
  footerText: '#e8eeea',
  footerLake: '#6cc3b7',
  footerRed: '#ff9d92',
  footerOchre: '#f3c969',
  footerRule: '#3b4946',
  line1: '#0b6fb0',
  line2: '#c75300',
  line3: '#7d6a00',
  line4: '#8c3f8f',
  line5: '#3f7a2a',
};

const dark: typeof light = {
  paper: '#111816',
  sheet: '#18211f',
  side: '#141c1a',
  ink: '#e6ece9',
  ink2: '#a0aeaa',
  rule: '#34413d',
  field: '#0e1513',
  fieldRule: '#6b7a75',
  lake: '#5fc4b8',
  lakeTint: '#17403d',
  onLake: '#06211f',
  red: '#ff8d82',
  redTint: '#452320',
  ochre: '#e5b753',
  onInk: '#111816',
  onInk2: '#46534f',
  footer: '#0b110f',
  footerText: '#e8eeea',
  footerLake: '#6cc3b7',
  footerRed: '#ff9d92',
  footerOchre: '#f3c969',
  footerRule: '#3b4946',
  line1: '#5fb1ea',
  line2: '#f09450',
  line3: '#d0b83a',
  line4: '#d08cd3',
  line5: '#8cc774',
};

type Role = keyof typeof light;

const variables = (colors: typeof light): string =>
  Object.entries(colors)
    .map(([name, value]) => `--${name}: ${value};`)
    .join('\n');

/** A colour by its role. */
export const color = Object.fromEntries(Object.keys(light).map((name) => [name, `var(--${name})`])) as Record<
  Role,
  string
>;

export const font = {
  text: "'Archivo Variable', system-ui, sans-serif",
  code: "'Spline Sans Mono Variable', ui-monospace, monospace",
};

/** Heights that rows and bars share, in px. */
export const size = { row: 37, header: 64, footer: 34 };

export const GlobalStyle = createGlobalStyle`
  :root { color-scheme: light; ${variables(light)} }
  :root[data-scheme='dark'] { color-scheme: dark; ${variables(dark)} }
  @media (prefers-color-scheme: dark) { :root:not([data-scheme='light']) { color-scheme: dark; ${variables(dark)} } }
  *, *::before, *::after { box-sizing: border-box; }
  html, body, #root { height: 100%; margin: 0; }
  body { background: ${color.paper}; color: ${color.ink}; font: 13px/1.35 ${font.text}; }
  h1, h2, h3, p, ul, ol, dl, dd, figure { margin: 0; padding: 0; }
  ul, ol { list-style: none; }
  button, input, select { font: inherit; color: inherit; }
  a { color: inherit; }
  code, .mono { font-family: ${font.code}; font-size: 12px; }
  :focus-visible, [data-focus-visible] { outline: 2px solid ${color.lake}; outline-offset: 1px; }
  @media (prefers-reduced-motion: reduce) { *, *::before, *::after { animation-duration: 1ms !important; transition-duration: 1ms !important; } }
`;
