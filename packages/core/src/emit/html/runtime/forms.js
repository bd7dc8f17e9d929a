/** A form goes nowhere by itself: what it does is said where its screen says what is done. */
document.addEventListener('submit', (event) => event.preventDefault());
