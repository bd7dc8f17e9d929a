/**
 * How screens arrive, by what `data-arrival` says of the page.
 * @param shared names of what moves from screen to screen
 */
export const transitionsCss = (shared: readonly string[]): string => `::view-transition-group(*),
::view-transition-old(*),
::view-transition-new(*) {
  animation-duration: var(--arrival-ms, 200ms);
  animation-timing-function: var(--arrival-easing, ease-out);
  animation-delay: var(--arrival-delay, 0ms);
  animation-fill-mode: both;
}

:root[data-arrival^='slide']::view-transition-old(root) {
  animation-name: arrival-dim;
}

:root[data-arrival^='slide']::view-transition-new(root) {
  animation-name: arrival-enter;
}

:root[data-arrival^='push']::view-transition-old(root) {
  animation-name: arrival-leave;
}

:root[data-arrival^='push']::view-transition-new(root) {
  animation-name: arrival-enter;
}

:root[data-arrival='scale']::view-transition-new(root) {
  animation-name: arrival-grow;
}

:root[data-arrival$='right'] {
  --arrival-x: 100%;
}

:root[data-arrival$='left'] {
  --arrival-x: -100%;
}

:root[data-arrival$='bottom'] {
  --arrival-y: 100%;
}

:root[data-arrival$='top'] {
  --arrival-y: -100%;
}
${shared.map((name) => `\n[data-arrives='${name}'] {\n  view-transition-name: ${name};\n}\n`).join('')}
@keyframes arrival-enter {
  from {
    transform: translate(var(--arrival-x, 0), var(--arrival-y, 0));
  }
}

@keyframes arrival-leave {
  to {
    transform: translate(calc(-1 * var(--arrival-x, 0)), calc(-1 * var(--arrival-y, 0)));
  }
}

@keyframes arrival-dim {
  to {
    opacity: 0.6;
  }
}

@keyframes arrival-grow {
  from {
    opacity: 0;
    transform: scale(0.85);
  }
}
`;
