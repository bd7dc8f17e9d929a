import { applyChange, emptyApp, emptyDesign, putDelivery, type Project } from '@tovel/core';
import fc from 'fast-check';
import { ProjectMemory, ProjectTeller } from './told_project';

/** What comes out at the other end of a message. */
const sent = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

const screen = (key: string, says: number) =>
  ({ key, name: `${key} ${says}` }) as unknown as Project['design']['screens'][number];

test('whatever is told one after the other, a worker has it as it is', () => {
  fc.assert(
    fc.property(
      fc.array(fc.array(fc.record({ key: fc.constantFrom('a', 'b', 'c'), says: fc.nat(2) }))),
      (rounds) => {
        const made = new Map<string, ReturnType<typeof screen>>();
        const one = ({ key, says }: { key: string; says: number }) =>
          made.get(`${key}${says}`) ?? made.set(`${key}${says}`, screen(key, says)).get(`${key}${says}`)!;
        const [teller, memory] = [new ProjectTeller(), new ProjectMemory()];
        for (const screens of rounds) {
          const project = { design: { ...emptyDesign, screens: screens.map(one) }, app: emptyApp };
          expect(memory.hear(sent(teller.tell(project)))).toEqual(project);
        }
      },
    ),
  );
});

test('what is as it was is the very same value, and a screen is sent once', () => {
  const [teller, memory] = [new ProjectTeller(), new ProjectMemory()];
  const first = { design: { ...emptyDesign, screens: [screen('a', 1), screen('b', 1)] }, app: emptyApp };
  const heard = memory.hear(sent(teller.tell(first)));
  const app = applyChange(emptyApp, putDelivery('target', 'vue'));
  const told = teller.tell({ design: first.design, app });
  expect(told.screens).toEqual([null, null]);
  const again = memory.hear(sent(told));
  expect(again.design).toBe(heard.design);
  expect(again.app.screens).toBe(heard.app.screens);
  expect(again.app.delivery.target).toBe('vue');
  const other = { ...first.design, screens: [first.design.screens[0], screen('b', 2)] };
  const third = memory.hear(sent(teller.tell({ design: other, app })));
  expect(third.design.screens[0]).toBe(heard.design.screens[0]);
  expect(third.design.screens[1]).not.toBe(heard.design.screens[1]);
  expect(third.app).toBe(again.app);
});
