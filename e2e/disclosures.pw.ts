import { expect, test } from '@playwright/test';
import { newProject, openJunction } from './support.ts';

const style = `
  .menu, .sub, .pane, .dialog { display: none } .menu.show, .sub.show, .pane.on, .dialog.show { display: block }
  .menu { position: absolute; background: #fff } .dialog { position: fixed; inset: 0 } .tab { color: gray } .tab.on { color: maroon }
  @media (max-width: 600px) { .nav { display: none } .nav.show { display: block } }
  .toggler { display: none } @media (max-width: 600px) { .toggler { display: inline-block } }`;
/** A page of a made-up desk, of which much is hidden until something opens it. */
const desk = (title: string): string => `<!doctype html><title>${title}</title><style>${style}</style>
  <button class="toggler" data-toggle="collapse" data-target="#nav">Toggle navigation</button>
  <nav class="nav" id="nav"><a href="desk.html">Desk</a>
    <a href="#sub" data-toggle="collapse">Sheds</a><ul class="sub" id="sub"><li><a href="mill.html">Mill Street</a></li></ul></nav>
  <div><button aria-haspopup="true">Marit Solberg</button><ul class="menu"><li><a href="#">Settings</a></li><li><a href="#out" data-toggle="modal">Sign out</a></li></ul></div>
  <h1>${title}</h1>
  <a class="tab on" href="#week">This week</a> <a class="tab" href="#month">This month</a>
  <div><div class="pane on" id="week">3 tools went out</div><div class="pane" id="month">18 tools went out</div></div>
  <div class="dialog" role="dialog" id="out"><h2>Really sign out?</h2><button data-dismiss="modal">Stay</button></div>`;

test('what pages hide opens in the running app, by what they say opens it; what is in it can be wired', async ({
  page,
}) => {
  const id = await newProject(page, 'Hiding');
  await page.getByLabel('Files', { exact: true }).setInputFiles(
    [
      ['desk.html', 'Desk'],
      ['mill.html', 'Mill Street shed'],
    ].map(([name, title]) => ({ name, mimeType: 'text/html', buffer: Buffer.from(desk(title)) })),
  );
  await expect(page.getByRole('heading', { name: '2 screens came in' })).toBeVisible({ timeout: 30_000 });

  await openJunction(page, id, 'Desk');
  const settings = page.getByRole('row', { name: /Settings in Marit Solberg/ });
  await settings.click();
  // It is seen where it stands, in the menu that is closed otherwise.
  await expect(
    page.getByRole('region', { name: /^Stage/ }).getByRole('button', { name: /: Settings, open/ }),
  ).toBeVisible();
  await expect(page.getByRole('row', { name: /Marit Solberg.*opens and closes.*live/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /Mill Street in Sheds.*live/ })).toBeVisible();

  await page.goto(`/p/${id}/run`);
  const app = page.frameLocator('iframe').last();
  const account = app.getByRole('button', { name: 'Marit Solberg' });
  await account.click({ timeout: 30_000 });
  await expect(account).toHaveAttribute('aria-expanded', 'true');
  await app.getByRole('button', { name: 'Sign out' }).click();
  await expect(account).toHaveAttribute('aria-expanded', 'false');
  await expect(app.getByRole('dialog', { name: 'Really sign out?' })).toBeVisible();
  await expect(app.getByRole('button', { name: 'Stay' })).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(app.getByRole('dialog')).toBeHidden();

  await app.getByRole('button', { name: 'This month' }).click();
  await expect(app.getByText('18 tools went out')).toBeVisible();
  await expect(app.getByText('3 tools went out')).toBeHidden();
  await expect(app.getByRole('button', { name: 'This month' })).toHaveCSS('color', 'rgb(128, 0, 0)');

  await page.getByRole('button', { name: '390' }).click();
  await expect(app.getByRole('button', { name: 'Sheds' })).toBeHidden();
  await app.getByRole('button', { name: 'Toggle navigation' }).click();
  await app.getByRole('button', { name: 'Sheds' }).click();
  await app.getByRole('link', { name: 'Mill Street' }).click();
  await expect(app.getByRole('heading', { name: 'Mill Street shed' })).toBeVisible();
});
