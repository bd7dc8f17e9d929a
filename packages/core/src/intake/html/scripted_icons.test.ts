import { withScriptedIcons } from './scripted_icons.ts';

const icon = (_: string, name: string): string | null =>
  name === 'house' ? `<svg width="24" height="24" stroke-width="2"><path d="M1 1"/></svg>` : null;

test('a drawing stands in the place of what names it, and has what that was given', () => {
  const html = withScriptedIcons(
    '<p><i data-lucide="house" class="w-5" stroke-width="1" onclick="go()"></i> Home</p>',
    icon,
  );
  expect(html).toContain('<path d="M1 1">');
  expect(html).toMatch(/<svg width="24" height="24"[^>]* class="lucide lucide-house w-5"/);
  expect(html).toContain('stroke-width="1"');
  expect(html).not.toContain('stroke-width="2"');
  expect(html).not.toContain('<i ');
});

test.each(['<p>Home</p>', '<i data-lucide="nothing"></i>', '<svg data-lucide="house"></svg>'])(
  'a page without any is the very text: %s',
  (html) => expect(withScriptedIcons(html, icon)).toBe(html),
);
