import { findDisclosures } from '../disclosures/find.ts';
import { describeTarget } from '../links/target.ts';
import { labelOf } from '../links/pressable.ts';
import { findElement } from '../model/places.ts';
import { projectOf } from '../testing/build.ts';
import { pageOfHtml } from '../testing/page_of_html.ts';
import { findActions } from './actions.ts';
import { makeWork } from './make_work.ts';

/** What controls of a page are made to do, as their labels and what is said of it; and why others are not. */
function made(html: string): string[] {
  const screen = pageOfHtml(html);
  const project = projectOf(screen);
  const work = makeWork(
    project,
    { collections: [], forms: [] },
    findActions(screen),
    findDisclosures(screen),
  );
  const after = { design: project.design, app: work.app };
  return [
    ...work.made.map(({ action, interaction }) => {
      const { label, detail } = describeTarget(after, interaction.target);
      return `${labelOf(findElement(project.design, action.element)!)} → ${label}, ${detail}`;
    }),
    ...work.left.map(({ action, why }) => `${action.label}: ${why}`),
  ];
}

test.each([
  ['what prints', '<button>Print labels</button>', ['Print labels → Print, the page']],
  ['what loads anew', '<button>Refresh</button>', ['Refresh → Load anew, the page']],
  [
    'what copies the field beside it',
    '<div><input value="MOSS-2026" aria-label="Code"><button>Copy</button></div>',
    ['Copy → Copy “MOSS-2026”, the page'],
  ],
  [
    'what copies the text before it',
    '<div><p>Mill Street 4</p><span><button>Copy</button></span></div>',
    ['Copy → Copy “Mill Street 4”, the page'],
  ],
  [
    'what has nothing to copy',
    '<button>Copy</button>',
    ['Copy: nothing stands beside it that it could copy'],
  ],
  [
    'what opens a part, which is taken along',
    '<div><div role="button">More</div><p hidden>9 to 5</p></div>',
    ['More → More, opens and closes'],
  ],
  [
    'what says that it opens, where nothing is hidden',
    '<button aria-expanded="false">Hours</button>',
    ['Hours: nothing that it could open or close is hidden on its screen'],
  ],
])('%s', (_, html, expected) => {
  expect(made(html)).toEqual(expected);
});
