import { type Form, type FormField, putForm, type ProposedFormField } from '@tovel/core';
import { useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Check } from '../ui/Check';
import { Button, Choice } from '../ui/controls';
import { SavedField } from '../ui/SavedField';
import { ruleProblem, rulesFor, ruleValue, type TextRule, withRule } from './field_rules';

const Rules = styled.tr`
  && td {
    text-align: left;
  }
  td > div {
    display: grid;
    grid-template-columns: repeat(3, minmax(0, 1fr));
    gap: 10px 12px;
    padding: 8px 12px 12px;
    background: ${color.side};
  }
`;

interface FormFieldRowProps {
  readonly screen: string;
  /** Key of what is around the fields. */
  readonly form: string;
  readonly proposed: ProposedFormField;
  /** What it is called where nothing does. */
  readonly label: string;
  /** The form as it works; not there where it does not yet, or nothing can be changed. */
  readonly kept?: Form;
}

/** A field of a form: what it is called in a record, and what it must be. */
export function FormFieldRow({ screen, form, proposed, label, kept }: FormFieldRowProps) {
  const { base, session } = useProject();
  const [isOpen, setOpen] = useState(false);
  const own = kept?.fields.find(({ element }) => element === proposed.element);
  const change = (next: FormField, words: string): void =>
    session.change(
      words,
      putForm(form, { ...kept!, fields: kept!.fields.map((one) => (one === own ? next : one)) }),
    );
  const rules = own ? rulesFor(proposed.type).filter((rule) => own[rule.name] !== undefined) : [];
  const id = `rules-of-${proposed.element.replace(/\W/g, '-')}`;
  return (
    <>
      <tr>
        <td>
          <Link to={`${base}/screens/at/${screen}?element=${encodeURIComponent(proposed.element)}`}>
            {label}
          </Link>
        </td>
        <td>
          <code>{own?.field ?? proposed.field}</code>
        </td>
        <td>
          {own ? (
            <Check
              label="required"
              isOn={own.required ?? false}
              onChange={(isOn) => {
                const { required: _required, ...rest } = own;
                change(
                  isOn ? { ...rest, required: true } : rest,
                  `${label}: ${isOn ? 'required' : 'not required'}`,
                );
              }}
            />
          ) : (
            <small>{proposed.required ? 'required' : ''}</small>
          )}
        </td>
        <td>
          <small>
            {[
              proposed.type,
              ...rules.map(({ says, name }) => says.replace('…', String(own![name]))),
              ...(own?.same ? [`the same as ${own.same}`] : []),
            ].join(' · ')}
          </small>
        </td>
        <td>
          {own && (
            <Button
              $kind="quiet"
              aria-label={`What ${label} must be`}
              aria-expanded={isOpen}
              aria-controls={id}
              onPress={() => setOpen(!isOpen)}
            >
              Must be …
            </Button>
          )}
        </td>
      </tr>
      {own && isOpen && (
        <Rules id={id}>
          <td colSpan={5}>
            <div>
              <MustBe field={own} type={proposed.type} label={label} others={kept!.fields} change={change} />
            </div>
          </td>
        </Rules>
      )}
    </>
  );
}

interface MustBeProps {
  readonly field: FormField;
  readonly type: ProposedFormField['type'];
  readonly label: string;
  readonly others: readonly FormField[];
  readonly change: (next: FormField, words: string) => void;
}

/** Stands for no field. */
const NONE = ' ';

/** All that a field must be, each by a field of its own. */
function MustBe({ field, type, label, others, change }: MustBeProps) {
  const put = (rule: TextRule, text: string): void =>
    change(
      withRule(field, rule, text),
      text ? `${label}: ${rule.says.replace('…', text)}` : `${label}: without ${rule.label.toLowerCase()}`,
    );
  return (
    <>
      {rulesFor(type).map((rule) => (
        <SavedField
          key={rule.name}
          label={rule.label}
          placeholder={rule.example}
          isCode={rule.name === 'pattern'}
          value={ruleValue(field, rule)}
          problemOf={(text) => ruleProblem(rule, text)}
          onSave={(text) => put(rule, text.trim())}
        />
      ))}
      {others.length > 1 && (
        <Choice
          label="The same as"
          value={field.same ?? NONE}
          options={[
            { id: NONE, label: 'no other' },
            ...others.filter((one) => one !== field).map((one) => ({ id: one.field, label: one.field })),
          ]}
          onChange={(next) => {
            const { same: _same, ...rest } = field;
            change(
              next === NONE ? rest : { ...rest, same: next },
              next === NONE ? `${label}: whatever others say` : `${label}: the same as ${next}`,
            );
          }}
        />
      )}
      <SavedField
        label="Said where it is wrong"
        placeholder="what the browser says"
        value={field.message ?? ''}
        onSave={(message) => {
          const { message: _message, ...rest } = field;
          change(
            message.trim() ? { ...rest, message: message.trim() } : rest,
            `${label}: what is said where it is wrong`,
          );
        }}
      />
    </>
  );
}
