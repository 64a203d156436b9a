import { countOf, formatPercent } from '@quarry/core/grid';
import { useQuery } from '@tanstack/react-query';
import { Suspense, lazy, useEffect } from 'react';
import type { PublicPage } from '@quarry/protocol/share';
import { shareApi } from '../../data/shareApi.ts';
import { daysTo } from '../../ui/days.ts';
import { Loading } from '../../ui/states.tsx';
import { PlanPicture } from '../../ui/PlanPicture.tsx';
import { dayWord, momentWord } from '../../ui/words.ts';

/** Refresh interval of the page, ms. */
const FRESH_MS = 20_000;

/** Reports are set by a library that is larger than the page. */
const ReportText = lazy(() => import('./ReportText.tsx').then((file) => ({ default: file.ReportText })));

/** What the public and the venue see of a display. */
export function SharePage({ token }: { token: string }) {
  const page = useQuery({
    queryKey: ['share', token],
    queryFn: () => shareApi.page(token),
    refetchInterval: FRESH_MS,
    retry: false,
  });
  const name = page.data?.name;
  useEffect(() => {
    if (name) document.title = name;
  }, [name]);
  if (page.isPending) return <Loading what="Opening" />;
  if (!page.data)
    return (
      <main className="p-8">
        <h1 className="text-lg font-bold">There is nothing to see here</h1>
        <p role="alert">{page.error?.message ?? 'The page was switched off.'}</p>
      </main>
    );
  const { plan, sections, totals, done, showName, showDate, at, reports, ratio, kind } = page.data;
  const days = showDate ? daysTo(showDate) : null;
  return (
    <main className="max-w-5xl mx-auto p-4 sm:p-8">
      <div className="flex flex-wrap items-baseline gap-x-4 border-b border-base-content pb-2">
        <h1 className="text-2xl font-bold flex-1">{page.data.name}</h1>
        <p className="ink-2">
          {kind} at 1:{ratio}
          {showDate && (
            <>
              {', '}
              {showName || 'shown'} {dayWord(showDate)}
              {days !== null && days > 0 && `, in ${countOf(days, 'day')}`}
            </>
          )}
        </p>
      </div>
      <figure className="py-3">
        <PlanPicture
          svg={plan}
          alt={`Plan of ${page.data.name} from above, with its sections ${sections.map(({ letter }) => letter).join(', ')}`}
        />
        <figcaption className="ink-2 text-xs">
          From above, north at the top; contours each brick. Last changed {momentWord(at)}.
        </figcaption>
      </figure>
      <div className="grid md:grid-cols-[minmax(0,1fr)_240px] gap-8">
        <HowFar sections={sections} done={done} />
        <InNumbers totals={totals} />
      </div>
      <Story {...page.data} />
      <Versions {...page.data} />
      <Photos {...page.data} token={token} />
      {reports.map((report) => (
        <article key={report.name + (report.at ?? '')} className="report pt-6 max-w-prose">
          <Suspense fallback={<Loading what="Opening the report" />}>
            <ReportText text={report.text} />
          </Suspense>
        </article>
      ))}
      <p className="ink-2 text-xs pt-8">Shown by its builders with Open Quarry.</p>
    </main>
  );
}

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
            <a href={`/api/share/${token}/photos/${file}`} target="_blank" rel="noreferrer">
              <img
                src={`/api/share/${token}/photos/${file}?small`}
                alt={`${section ?? 'The display'}, ${momentWord(taken)}`}
                loading="lazy"
                width={width}
                height={height}
                className="w-full h-36 object-cover border hair"
              />
            </a>
            <p className="ink-2 text-xs">
              {section ?? 'The display'}, {momentWord(taken)}
            </p>
          </li>
        ))}
      </ul>
    </section>
  );
}
