import { putDelivery, targetOf, targets, type TargetName } from '@tovel/core';
import { useProject } from '../project/context';
import { Choice } from '../ui/controls';

const TARGETS = (Object.keys(targets) as TargetName[]).map((id) => ({ id, label: targets[id].name }));

const TESTS = [
  { id: 'with', label: 'Tests' },
  { id: 'without', label: 'No tests' },
] as const;
const LOGIC = [
  { id: 'acting', label: 'Hooks' },
  { id: 'every', label: 'Hooks everywhere' },
  { id: 'without', label: 'No hooks' },
] as const;
const NAMING = [
  { id: 'pascal', label: 'MyLoans.tsx' },
  { id: 'kebab', label: 'my-loans.tsx' },
] as const;

/** How the code is written. @param onOther told before files may be called otherwise */
export function DeliveryChoices({ onOther }: { onOther: () => void }) {
  const { app, session } = useProject();
  const target = targetOf(app);
  return (
    <>
      <Choice
        label="Written as"
        isLabelHidden
        value={target}
        options={TARGETS}
        onChange={(next) => {
          onOther();
          session.change(`The code is written as ${targets[next].name}`, putDelivery('target', next));
        }}
      />
      <Choice
        label="Hooks for hand-written code"
        isLabelHidden
        value={app.delivery.logic ?? 'acting'}
        options={LOGIC}
        onChange={(next) => {
          onOther();
          session.change('Where people hook in', putDelivery('logic', next));
        }}
      />
      {target === 'react' && (
        <>
          <Choice
            label="Tests"
            isLabelHidden
            value={app.delivery.tests ?? 'with'}
            options={TESTS}
            onChange={(next) => session.change(`The code comes ${next} tests`, putDelivery('tests', next))}
          />
          <Choice
            label="Names of files"
            isLabelHidden
            value={app.delivery.naming ?? 'pascal'}
            options={NAMING}
            onChange={(next) => {
              onOther();
              session.change('How files are called', putDelivery('naming', next));
            }}
          />
        </>
      )}
    </>
  );
}
