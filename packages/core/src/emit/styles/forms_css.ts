/** What is said of a field that is filled in wrongly. */
export const formsCss = `[data-field-message] {
  display: block;
  margin-top: 4px;
  color: #b3261e;
  font-size: 0.85em;
  font-weight: 400;
}
`;
