import { Link, NavLink } from 'react-router';
import styled, { css } from 'styled-components';
import { color, size } from '../theme/theme';

/** The grid of a project: work line, notices, view, ledger strip. */
export const ShellGrid = styled.div`
  display: grid;
  grid-template-rows: ${size.header}px auto minmax(0, 1fr) ${size.footer}px;
  height: 100%;
  min-width: 1024px;
`;

export const Bar = styled.header`
  grid-row: 1;
  display: grid;
  grid-template-columns: 210px minmax(0, 1fr) 220px;
  align-items: center;
  background: ${color.sheet};
  border-bottom: 1px solid ${color.rule};
`;

export const Brand = styled(Link)`
  padding-left: 18px;
  line-height: 1.15;
  text-decoration: none;
  overflow: hidden;
  b {
    font-size: 17px;
    font-stretch: 115%;
  }
  span {
    display: block;
    color: ${color.ink2};
    font-size: 12px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  &:hover span {
    text-decoration: underline;
  }
`;

export const Rail = styled.nav<{ $count: number }>`
  position: relative;
  display: grid;
  grid-template-columns: repeat(${({ $count }) => $count}, minmax(0, 1fr));
  max-width: 760px;
  width: 100%;
  margin: 0 auto;
  &::before {
    content: '';
    position: absolute;
    left: ${({ $count }) => 50 / $count}%;
    right: ${({ $count }) => 50 / $count}%;
    top: 7px;
    height: 3px;
    background: ${color.rule};
  }
`;

const stop = css`
  position: relative;
  padding-top: 24px;
  text-align: center;
  text-decoration: none;
  font-size: 12.5px;
  font-stretch: 90%;
  color: ${color.ink2};
  i {
    position: absolute;
    left: 50%;
    top: 3px;
    width: 11px;
    height: 11px;
    margin-left: -6px;
    background: ${color.sheet};
    border: 3px solid ${color.ink2};
    border-radius: 50%;
  }
  em {
    font-style: normal;
    font-weight: 700;
    margin-left: 4px;
  }
  &[data-done] i {
    border-color: ${color.lake};
  }
  &:hover {
    color: ${color.ink};
  }
  &.active {
    color: ${color.ink};
    font-weight: 700;
    i {
      background: ${color.ink};
      border-color: ${color.ink};
      width: 15px;
      height: 15px;
      top: 1px;
      margin-left: -8px;
    }
  }
`;

export const Stop = styled(NavLink)`
  ${stop}
`;

/** Where a stop will be, while the project is opened. */
export const ComingStop = styled.span`
  ${stop}
`;
