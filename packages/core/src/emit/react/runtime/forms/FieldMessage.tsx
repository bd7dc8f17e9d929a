import { useContext } from 'react';
import { messageId } from './check';
import { Messages } from './messages';

/** What is wrong with a field, said beside it. */
export function FieldMessage({ of }: { of: string }) {
  const { form, problems } = useContext(Messages);
  return problems[of] ? (
    <span id={messageId(form, of)} role="alert" data-field-message="">
      {problems[of]}
    </span>
  ) : null;
}
