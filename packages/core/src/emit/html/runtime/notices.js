/** How long a notice stands, in milliseconds. */
const STANDS = 8000;

const place = document.createElement('div');
place.className = 'notice';
place.setAttribute('role', 'status');
document.body.append(place);

/** @type {ReturnType<typeof setTimeout> | undefined} */
let timer;

/** Says something over the page, for a while. @param {string} text */
export function say(text) {
  clearTimeout(timer);
  const line = document.createElement('p');
  const close = document.createElement('button');
  close.type = 'button';
  close.textContent = 'Close';
  close.addEventListener('click', () => place.replaceChildren());
  line.append(`${text} `, close);
  place.replaceChildren(line);
  timer = setTimeout(() => place.replaceChildren(), STANDS);
}
