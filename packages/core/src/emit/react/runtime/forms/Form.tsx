import {
  type FocusEvent,
  type FormEvent,
  type FormHTMLAttributes,
  useId,
  useMemo,
  useRef,
  useState,
} from 'react';
import {
  type Field,
  fieldsOf,
  isToSend,
  problemsOf,
  refusedBy,
  tie,
  type Values,
  valuesOf,
  WHOLE,
} from './check';
import { Leaving } from './Leaving';
import { Messages } from './messages';
import './forms.css';

interface FormProps extends FormHTMLAttributes<HTMLFormElement> {
  /** Is called with what it is filled in with, once that is right. What it refuses by an error is said in the form. */
  onSend: (values: Values) => void | Promise<void>;
  /** Whether it asks before one leaves with something filled in and not sent. */
  asks?: boolean;
}

/** A form whose fields are checked when one leaves them and before it is sent; the first that is wrong gets the focus. */
export function Form({ onSend, asks, children, ...rest }: FormProps) {
  const form = useId();
  const [problems, setProblems] = useState<Values>({});
  const [isSending, setSending] = useState(false);
  const isUnsent = useRef(false);

  const check = (fields: Field[]) => {
    const found = problemsOf(fields);
    tie(fields, found, form);
    setProblems((before) => ({ ...before, ...found }));
    return found;
  };
  const handleBlur = ({ currentTarget, target, relatedTarget }: FocusEvent<HTMLFormElement>) => {
    if (!isToSend(relatedTarget))
      check(fieldsOf(currentTarget).filter((field) => field === (target as Element)));
  };
  const handleInput = ({ currentTarget, target }: FormEvent<HTMLFormElement>) => {
    isUnsent.current = true;
    check(
      fieldsOf(currentTarget).filter(
        (field) => field === (target as Element) && problems[field.name],
      ),
    );
  };
  const handleSubmit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    if (isSending) return;
    const { currentTarget } = event;
    const fields = fieldsOf(currentTarget);
    const found = check(fields);
    const wrong = fields.find(({ name }) => found[name]);
    if (wrong) return wrong.focus();
    setSending(true);
    // What sending leads to is no leaving.
    isUnsent.current = false;
    try {
      await onSend(valuesOf(currentTarget));
      setProblems({});
      currentTarget.reset();
    } catch (error) {
      isUnsent.current = true;
      const refused = refusedBy(error, fields);
      tie(fields, refused, form);
      setProblems(refused);
      fields.find(({ name }) => refused[name])?.focus();
    }
    setSending(false);
  };

  return (
    <form
      noValidate
      aria-busy={isSending || undefined}
      {...rest}
      onBlur={handleBlur}
      onInput={handleInput}
      onSubmit={(event) => void handleSubmit(event)}
    >
      <Messages value={useMemo(() => ({ form, problems }), [form, problems])}>{children}</Messages>
      {asks && <Leaving isUnsent={isUnsent} />}
      {problems[WHOLE] && (
        <span role="alert" data-field-message="">
          {problems[WHOLE]}
        </span>
      )}
    </form>
  );
}
