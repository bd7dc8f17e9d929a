import type { Component, Prop } from '@tovel/core';
import styled from 'styled-components';
import { color, font } from '../theme/theme';
import { PropTable } from './PropTable';

const Props = styled(PropTable)`
  input {
    width: 100%;
    height: 27px;
    padding: 2px 7px;
    border: 1px solid ${color.fieldRule};
    background: ${color.field};
    color: ${color.ink};
    font: 12px ${font.code};
  }
  td:nth-child(3) {
    max-width: 300px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    color: ${color.ink2};
  }
`;

const KIND_WORDS: Readonly<Record<Prop['kind'], string>> = {
  text: 'text',
  image: 'picture',
  link: 'where it leads',
  flag: 'yes or no',
  choice: 'one of several',
  drawing: 'drawing',
  list: 'list',
};

interface RepeatPropsProps {
  component: Component;
  props: readonly Prop[];
  /** Renames one; where it is only proposed there is none. */
  onRename?: (prop: Prop, name: string) => void;
}

/** What differs from place to place. */
export function RepeatProps({ component, props, onRename }: RepeatPropsProps) {
  return (
    <Props>
      <thead>
        <tr>
          <th scope="col">{component.kind === 'list' ? 'Field' : 'Prop'}</th>
          <th scope="col">Kind</th>
          <th scope="col">In the first place</th>
        </tr>
      </thead>
      <tbody>
        {props.map((prop) => (
          <tr key={prop.name}>
            <td>
              {onRename ? (
                <input
                  aria-label={`Name of ${prop.name}`}
                  defaultValue={prop.name}
                  onBlur={(event) => onRename(prop, event.target.value.trim())}
                  onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
                />
              ) : (
                <code>{prop.name}</code>
              )}
            </td>
            <td>
              {KIND_WORDS[prop.kind]}
              {prop.isOptional && prop.kind !== 'flag' ? ', may be missing' : ''}
            </td>
            <td>{prop.sample ?? ''}</td>
          </tr>
        ))}
      </tbody>
    </Props>
  );
}
