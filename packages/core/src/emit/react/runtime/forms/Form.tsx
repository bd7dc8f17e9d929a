import {
  type FocusEvent,
  type FormEvent,
  type FormHTMLAttributes,
  useId,
  useMemo,
  useState,
} from 'react';
import { type Field, fieldsOf, isSending, problemsOf, tie, type Values, valuesOf } from './check';
import { Messages } from './messages';
import './forms.css';

interface FormProps extends FormHTMLAttributes<HTMLFormElement> {
  /** Is called with what it is filled in with, once that is right. */
  onSend: (values: Values) => void;
}

/** A form whose fields are checked when one leaves them and before it is sent; the first that is wrong gets the focus. */
export function Form({ onSend, children, ...rest }: FormProps) {
  const form = useId();
  const [problems, setProblems] = useState<Values>({});

  const check = (fields: Field[]) => {
    const found = problemsOf(fields);
    tie(fields, found, form);
    setProblems((before) => ({ ...before, ...found }));
    return found;
  };
  const handleBlur = ({ currentTarget, target, relatedTarget }: FocusEvent<HTMLFormElement>) => {
    if (!isSending(relatedTarget))
      check(fieldsOf(currentTarget).filter((field) => field === (target as Element)));
  };
  const handleInput = ({ currentTarget, target }: FormEvent<HTMLFormElement>) => {
    check(
      fieldsOf(currentTarget).filter(
        (field) => field === (target as Element) && problems[field.name],
      ),
    );
  };
  const handleSubmit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const { currentTarget } = event;
    const fields = fieldsOf(currentTarget);
    const found = check(fields);
    const wrong = fields.find(({ name }) => found[name]);
    if (wrong) wrong.focus();
    else {
      onSend(valuesOf(currentTarget));
      currentTarget.reset();
    }
  };

  return (
    <form noValidate {...rest} onBlur={handleBlur} onInput={handleInput} onSubmit={handleSubmit}>
      <Messages value={useMemo(() => ({ form, problems }), [form, problems])}>{children}</Messages>
    </form>
  );
}
