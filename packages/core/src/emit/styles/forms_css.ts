/** What is said of a field that is filled in wrongly. */
export const formsCss = `[data-field-message] {
  display: block;
  margin-top: 4px;
  color: #b3261e;
  font-size: 0.85em;
  font-weight: 400;
}

[data-leaving] {
  max-width: 40ch;
  padding: 20px;
  border: 1px solid #8a8a8a;
  border-radius: 8px;
  background: #fff;
  color: #222;
  font:
    15px/1.4 system-ui,
    sans-serif;
}

[data-leaving]::backdrop {
  background: rgb(0 0 0 / 0.4);
}

[data-leaving] button {
  margin: 16px 8px 0 0;
  padding: 8px 14px;
  border: 1px solid #222;
  border-radius: 6px;
  background: none;
  color: inherit;
  font: inherit;
  cursor: pointer;
}
`;
