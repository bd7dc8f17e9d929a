/** What opens over screens: where it stands, and how it comes. */
export const overlaysCss = `.overlay {
  border: 0;
  padding: 0;
  max-width: 100vw;
  max-height: 100dvh;
  overflow: auto;
  background: none;
  color: inherit;
}

.overlay::backdrop {
  background: rgb(0 0 0 / 0.4);
}

.overlay[popover]::backdrop {
  background: none;
}

.overlay:not([popover]):not(:modal) {
  position: fixed;
  inset: 0;
  margin: auto;
}

.overlay[data-kind='drawer'] {
  margin: 0 auto 0 0;
  height: 100dvh;
}

.overlay[data-kind='drawer'][data-side='right'] {
  margin: 0 0 0 auto;
}

.overlay[data-kind='sheet'] {
  margin: auto auto 0;
  width: 100vw;
}

.overlay[data-kind='sheet'] > * {
  width: 100%;
}

.overlay[data-kind='sheet'][data-side='top'],
.overlay[data-kind='drawer'][data-side='top'] {
  margin: 0 auto auto;
}

.overlay[data-kind='drawer'][data-side='top'],
.overlay[data-kind='drawer'][data-side='bottom'] {
  height: auto;
  width: 100vw;
}

.overlay[data-kind='drawer'][data-side='bottom'] {
  margin: auto auto 0;
}

.overlay[data-kind='toast'] {
  inset: auto 0 24px;
  margin: 0 auto;
}

@media (prefers-reduced-motion: no-preference) {
  .overlay[data-arrival] {
    animation: overlay-fade 200ms ease-out;
  }

  .overlay[data-arrival='slide'],
  .overlay[data-arrival='push'] {
    animation-name: overlay-rise;
  }

  .overlay[data-arrival='scale'] {
    animation-name: overlay-grow;
  }
}

@keyframes overlay-fade {
  from {
    opacity: 0;
  }
}

@keyframes overlay-rise {
  from {
    transform: translateY(100%);
  }
}

@keyframes overlay-grow {
  from {
    opacity: 0;
    transform: scale(0.9);
  }
}
`;
