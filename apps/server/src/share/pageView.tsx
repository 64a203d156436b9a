import { daysBetween, untilWords } from '@quarry/core/document';
import { formatPercent } from '@quarry/core/grid';
import { format, parseISO } from 'date-fns';
import Markdown from 'react-markdown';
import { renderToStaticMarkup } from 'react-dom/server';
import remarkGfm from 'remark-gfm';
import { framed } from './frame.ts';
import type { PublicPage } from './publicPage.ts';

// The page for the public as it is sent: nothing of it is computed in a browser. `publicPage.html` of the pages is its frame.

/** The way to a page, the day it is made, and its frame. */
export interface PageSetting {
  token: string;
  /** ISO, of which the days to the show are counted. */
  today: string;
  frame: string;
}

/** The page of a display, as HTML. */
export const renderPublicPage = (page: PublicPage, { frame, ...setting }: PageSetting): string =>
  framed(frame, page.name, renderToStaticMarkup(<PublicPageView page={page} {...setting} />));

/** What the public and the venue see of a display. */
function PublicPageView({ page, token, today }: { page: PublicPage } & Omit<PageSetting, 'frame'>) {
  const { plan, sections, totals, done, showName, showDate, at, reports, ratio, kind } = page;
  const wait = showDate ? untilWords(daysBetween(today, showDate)) : '';
  return (
    <main className="max-w-5xl mx-auto p-4 sm:p-8">
      <div className="flex flex-wrap items-baseline gap-x-4 border-b border-base-content pb-2">
        <h1 className="text-2xl font-bold flex-1">{page.name}</h1>
        <p className="ink-2">
          {kind} at 1:{ratio}
          {showDate && (
            <>
              {', '}
              {showName || 'shown'} {dayWord(showDate)}
              <span data-days-to={showDate}>{wait && `, ${wait}`}</span>
            </>
          )}
        </p>
      </div>
      <figure className="py-3">
        {/* A picture: nothing in it is run. Its paper is light by night too. */}
        <img
          className="w-full bg-[#faf8f3] border hair"
          src={`data:image/svg+xml;charset=utf-8,${encodeURIComponent(plan)}`}
          alt={`Plan of ${page.name} from above, with its sections ${sections.map(({ letter }) => letter).join(', ')}`}
        />
        <figcaption className="ink-2 text-xs">
          From above, north at the top; contours each brick. Last changed{' '}
          <Moment at={new Date(at).toISOString()} />.
        </figcaption>
      </figure>
      <div className="grid md:grid-cols-[minmax(0,1fr)_240px] gap-8">
        <HowFar sections={sections} done={done} />
        <InNumbers totals={totals} />
      </div>
      <Story {...page} />
      <Versions {...page} />
      <Photos {...page} token={token} />
      {reports.map((report) => (
        <article key={report.name + (report.at ?? '')} className="report pt-6 max-w-prose">
          <Markdown remarkPlugins={[remarkGfm]} disallowedElements={['img']}>
            {report.text}
          </Markdown>
        </article>
      ))}
      <p className="ink-2 text-xs pt-8">Shown by its builders with Open Quarry.</p>
    </main>
  );
}

/** A moment in UTC; the reader's browser puts its own time in place. @param at ISO */
const Moment = ({ at }: { at: string }) => (
  <time dateTime={at} data-moment="">
    {MOMENT.format(new Date(at))} UTC
  </time>
);
const MOMENT = new Intl.DateTimeFormat('en-GB', {
  ...{ timeZone: 'UTC', hourCycle: 'h23', day: 'numeric' },
  ...{ month: 'short', hour: '2-digit', minute: '2-digit' },
});
/** A day as people write it: “21 Nov 2026”. */
const dayWord = (iso: string): string => format(parseISO(iso), 'd MMM yyyy');

function HowFar({ sections, done }: Pick<PublicPage, 'sections' | 'done'>) {
  return (
    <section aria-labelledby="how-far">
      <h2 id="how-far" className="font-semibold">
        {formatPercent(done)} built
      </h2>
      <ul>
        {sections.map((section) => (
          <li key={section.letter + section.name} className="border-b hair py-1.5">
            <div className="flex items-baseline gap-2">
              <span className="font-semibold">
                {section.letter}, {section.name}
              </span>
              <span className="ink-2 flex-1">{section.owner}</span>
              <span>{section.stage}</span>
              <span className="fig w-12 text-right">{formatPercent(section.done)}</span>
            </div>
            <div className="h-1.5 border border-base-content mt-1" aria-hidden>
              <div className="h-full bg-base-content" style={{ width: `${100 * section.done}%` }} />
            </div>
          </li>
        ))}
      </ul>
    </section>
  );
}

function InNumbers({ totals }: Pick<PublicPage, 'totals'>) {
  return (
    <section aria-labelledby="figures">
      <h2 id="figures" className="font-semibold">
        In numbers
      </h2>
      <dl>
        {totals.map(({ word, count, unit }) => (
          <div key={word} className="flex justify-between gap-3 border-b hair py-1">
            <dt>{word}</dt>
            <dd className="fig whitespace-nowrap">
              {count.toLocaleString('en')}
              {unit && <span className="text-xs"> {unit}</span>}
            </dd>
          </div>
        ))}
      </dl>
    </section>
  );
}

/** The small scenes in their order, and what there is to look for. */
function Story({ story, finds }: Pick<PublicPage, 'story' | 'finds'>) {
  if (story.length + finds.length === 0) return null;
  return (
    <div className="grid md:grid-cols-[minmax(0,1fr)_240px] gap-8 pt-6">
      <section aria-labelledby="story">
        <h2 id="story" className="font-semibold">
          The story
        </h2>
        <ol>
          {story.map(({ order, name: scene, story: text, cast }) => (
            <li key={`${order} ${scene}`} className="border-b hair py-1.5 flex gap-3">
              <span className="fig w-6 text-right">{order}</span>
              <span>
                <b className="font-semibold">{scene}</b>
                {text !== '' && <span className="block">{text}</span>}
                {cast.length > 0 && <span className="block ink-2 text-xs">With {cast.join(', ')}</span>}
              </span>
            </li>
          ))}
        </ol>
      </section>
      {finds.length > 0 && (
        <section aria-labelledby="finds">
          <h2 id="finds" className="font-semibold">
            Can you find them?
          </h2>
          <ul>
            {finds.map(({ word, count }) => (
              <li key={word} className="flex justify-between border-b hair py-1">
                <span>{word}</span>
                <span className="fig">{count.toLocaleString('en')}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}

function Versions({ versions }: Pick<PublicPage, 'versions'>) {
  if (versions.length === 0) return null;
  return (
    <section aria-labelledby="versions" className="pt-6">
      <h2 id="versions" className="font-semibold">
        Also shown as
      </h2>
      <ul>
        {versions.map((version) => (
          <li key={version.name} className="border-b hair py-1.5">
            <b className="font-semibold">{version.name}</b>
            {version.stands && <span className="ink-2">, it stands now</span>}
            {version.totals.length > 0 && (
              <span className="block ink-2 text-xs">
                {version.totals
                  .map(
                    ({ word, base, count }) =>
                      `${count.toLocaleString('en')} ${word} instead of ${base.toLocaleString('en')}`,
                  )
                  .join(', ')}
              </span>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Photos({ photos, token }: Pick<PublicPage, 'photos'> & { token: string }) {
  if (photos.length === 0) return null;
  return (
    <section aria-labelledby="photos" className="pt-6">
      <h2 id="photos" className="font-semibold pb-2">
        Photos
      </h2>
      <ul className="grid gap-3 grid-cols-2 sm:grid-cols-3 lg:grid-cols-4">
        {photos.map(({ file, width, height, taken, section }) => (
          <li key={file}>
            <a href={`/s/${token}/photos/${file}`} target="_blank" rel="noreferrer">
              <img
                src={`/s/${token}/photos/${file}?small`}
                alt={section ?? 'The display'}
                loading="lazy"
                width={width}
                height={height}
                className="w-full h-36 object-cover border hair"
              />
            </a>
            <p className="ink-2 text-xs">
              {section ?? 'The display'}, <Moment at={taken} />
            </p>
          </li>
        ))}
      </ul>
    </section>
  );
}
