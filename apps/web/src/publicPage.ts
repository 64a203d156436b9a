import { untilWords } from '@quarry/core/document';
import { daysTo } from './ui/days.ts';
import { momentWord } from './ui/words.ts';

// What visitors see, at `/s/<token>`, comes from the server as it is to be read. This keeps it fresh, and tells its moments in
// the reader's own time. Without it the page is as complete, in UTC, of the moment it was opened.

/** Refresh interval of the page, ms. */
const FRESH_MS = 20_000;
/** Answers that are this page: as it is, or that it was switched off. */
const PAGES: readonly number[] = [200, 404];

/** Moments in the reader's own time, and days from the reader's own day. */
function localize(page: Document): void {
  for (const time of page.querySelectorAll<HTMLTimeElement>('time[data-moment]'))
    time.textContent = momentWord(time.dateTime);
  for (const wait of page.querySelectorAll<HTMLElement>('[data-days-to]')) {
    const words = untilWords(daysTo(wait.dataset.daysTo ?? ''));
    wait.textContent = words && `, ${words}`;
  }
}

/** Replaces the parts of the page that are otherwise now, so that the others keep focus and pictures. */
function replaceChanged(fresh: Document): void {
  const [now, next] = [document.querySelector('main'), fresh.querySelector('main')];
  if (!now || !next) return;
  document.title = fresh.title;
  const parts = [...next.children];
  for (const [i, part] of parts.entries()) {
    const shown = now.children[i];
    if (!shown) now.append(part);
    else if (!shown.isEqualNode(part)) shown.replaceWith(part);
  }
  while (now.children.length > parts.length) now.lastElementChild?.remove();
}

async function refresh(): Promise<void> {
  if (document.hidden) return;
  // Without the network the page stays as it was.
  const answer = await fetch(location.href, { headers: { accept: 'text/html' } }).catch(() => null);
  if (!answer || !PAGES.includes(answer.status)) return;
  const fresh = new DOMParser().parseFromString(await answer.text(), 'text/html');
  localize(fresh);
  replaceChanged(fresh);
}

localize(document);
setInterval(() => void refresh(), FRESH_MS);
document.addEventListener('visibilitychange', () => void refresh());
