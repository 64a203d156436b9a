/** Single letters act where the board has the focus, or nothing has: a letter meant for a button does not take a tool. */
export const ON_BOARD = {
  ignoreEventWhen: ({ target }: KeyboardEvent): boolean =>
    !(target instanceof Element) ||
    (target !== document.body && target.closest('[role="application"]') === null),
};

/** Puts the focus on the board of the page, so that its keys act. */
export const focusBoard = (): void => {
  const board = document.querySelector('[role="application"]');
  if (board instanceof HTMLElement) board.focus({ preventScroll: true });
};
