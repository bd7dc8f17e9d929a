/** How it looks when something did not work: a line over the lower end of the window. */
export const noticeCss = `.notice {
  position: fixed;
  inset: auto 16px 16px;
  z-index: 1000;
  display: grid;
  justify-items: center;
  pointer-events: none;
}

.notice p {
  max-width: 60ch;
  margin: 0;
  padding: 12px 16px;
  border-radius: 8px;
  background: #2b2118;
  color: #fff;
  font:
    15px/1.4 system-ui,
    sans-serif;
  pointer-events: auto;
}

.notice button {
  margin-left: 8px;
  padding: 4px 8px;
  border: 1px solid currentcolor;
  border-radius: 6px;
  background: none;
  color: inherit;
  font: inherit;
  cursor: pointer;
}
`;
