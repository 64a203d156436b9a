import { useInfiniteQuery, useMutation } from '@tanstack/react-query';
import { addDays, format, isSameDay, parseISO } from 'date-fns';
import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import { KINDS, KIND_NAMES, listOf } from '@quarry/core/document';
import { countOf } from '@quarry/core/grid';
import { Board } from '../../board/Board.tsx';
import { keys, queryClient } from '../../data/api.ts';
import type { HistoryFilter, HistoryLine } from '@quarry/protocol/history';
import { crewApi } from '../../data/crewApi.ts';
import { useDisplay, useEdit, useLink, useIsPlanner, useScene } from '../../data/useDisplay.tsx';
import { Dialog, Empty, Failure, Loading } from '../../ui/parts.tsx';
import { dayWord, momentWord } from '../../ui/words.ts';
import { usePast } from './usePast.ts';

const AT_A_TIME = 60;

/** The log as sentences, and the plan as it was after each of them. */
export function HistoryPanel() {
  const scene = useScene('section');
  const seq = useDisplay(({ seq }) => seq);
  const link = useLink();
  const [author, setAuthor] = useState('');
  const [section, setSection] = useState('');
  const [kind, setKind] = useState('');
  const [day, setDay] = useState('');
  const [moment, setMoment] = useState<number | null>(null);
  const date = day === '' ? null : parseISO(day);
  const filter: HistoryFilter = {
    author: author || undefined,
    section: section || undefined,
    kind: kind || undefined,
    from: date?.getTime(),
    // A day has 23 to 25 hours.
    to: date ? addDays(date, 1).getTime() : undefined,
    limit: AT_A_TIME,
  };
  const history = useInfiniteQuery({
    queryKey: [...keys.history(link.id), filter],
    queryFn: ({ pageParam }) =>
      crewApi.history(link.id, { ...filter, ...(pageParam === null ? {} : { before: pageParam }) }),
    initialPageParam: null as number | null,
    getNextPageParam: ({ lines }) => (lines.length < AT_A_TIME ? null : (lines.at(-1)?.seq ?? null)),
  });
  useEffect(() => {
    void queryClient.invalidateQueries({ queryKey: keys.history(link.id) });
    void crewApi.mark(link.id, 'log', seq).catch(() => undefined);
  }, [link, seq]);
  const [first] = history.data?.pages ?? [];
  const lines = history.data?.pages.flatMap((page) => page.lines) ?? [];
  const filtered = author !== '' || section !== '' || kind !== '' || day !== '';
  return (
    <div className="h-full grid grid-rows-[minmax(0,1fr)_minmax(0,1fr)] lg:grid-rows-1 grid-cols-1 lg:grid-cols-[minmax(0,480px)_minmax(0,1fr)] min-h-0">
      <div className="flex flex-col min-h-0 border-b lg:border-b-0 lg:border-r hair">
        <div className="flex flex-wrap gap-1 p-2 border-b hair" role="group" aria-label="Show changes">
          <Pick label="Person" any="anybody" value={author} onPick={setAuthor}>
            {(first?.authors ?? []).map((name) => [name, name])}
          </Pick>
          <Pick label="Section" any="any section" value={section} onPick={setSection}>
            {listOf(scene, 'section').map(({ id, letter, name }) => [id, `${letter}, ${name}`])}
          </Pick>
          <Pick label="Kind" any="any kind" value={kind} onPick={setKind}>
            {KIND_NAMES.map((one) => [one, KINDS[one].word])}
          </Pick>
          <input
            type="date"
            aria-label="Day"
            className="input input-xs w-28"
            value={day}
            onChange={(event) => setDay(event.currentTarget.value)}
          />
          {filtered && (
            <button
              type="button"
              className="btn btn-xs btn-ghost"
              onClick={() => {
                setAuthor('');
                setSection('');
                setKind('');
                setDay('');
              }}
            >
              Show all
            </button>
          )}
        </div>
        <div className="overflow-auto flex-1 min-h-0" role="region" aria-label="Changes" tabIndex={0}>
          {history.isPending && <Loading what="Reading the log" />}
          {history.isError && <Failure title="The log cannot be read" message={history.error.message} />}
          {history.isSuccess && lines.length === 0 && (
            <div className="p-3">
              <Empty title={filtered ? 'No such change' : 'Nothing has changed yet'}>
                {filtered
                  ? 'Choose another person, section, kind or day.'
                  : 'Every change anybody makes stands here, in words, with the plan as it was.'}
              </Empty>
            </div>
          )}
          <ol>
            {lines.map((line, i) => (
              <li key={line.seq}>
                {(i === 0 || !isSameDay(line.at, lines[i - 1]?.at ?? line.at)) && (
                  <h2 className="font-semibold px-3 pt-3 pb-0.5">{format(line.at, 'EEEE d MMMM')}</h2>
                )}
                <Entry line={line} on={moment === line.seq} onShow={() => setMoment(line.seq)} />
              </li>
            ))}
          </ol>
          {history.hasNextPage && (
            <button
              type="button"
              className="btn btn-xs m-3"
              disabled={history.isFetchingNextPage}
              onClick={() => void history.fetchNextPage()}
            >
              Earlier changes
            </button>
          )}
        </div>
      </div>
      <PastPlan
        seq={moment}
        begins={first?.begins ?? null}
        latest={seq}
        onMoment={setMoment}
        line={lines.find((line) => line.seq === moment) ?? null}
      />
    </div>
  );
}

function Pick({
  label,
  any,
  value,
  onPick,
  children,
}: {
  label: string;
  any: string;
  value: string;
  onPick: (value: string) => void;
  children: readonly (readonly [string, string])[];
}) {
  return (
    <select
      aria-label={label}
      className="select select-xs w-24"
      value={value}
      onChange={(event) => onPick(event.currentTarget.value)}
    >
      <option value="">{any}</option>
      {children.map(([id, word]) => (
        <option key={id} value={id}>
          {word}
        </option>
      ))}
    </select>
  );
}

/** The most sentences an entry shows before it is opened. */
const SHORT = 3;

function Entry({ line, on, onShow }: { line: HistoryLine; on: boolean; onShow: () => void }) {
  const [open, setOpen] = useState(false);
  // Batches from before sentences were kept have their label only.
  const sentences =
    line.descriptions.length > 0
      ? line.descriptions.map(({ sentence }) => sentence)
      : [line.label || 'a change'];
  const shown = open ? sentences : sentences.slice(0, SHORT);
  return (
    <div
      className={`px-3 py-1 border-b hair border-l-3 ${on ? 'bg-base-200 border-l-primary' : 'border-l-transparent'}`}
    >
      <button type="button" className="text-left w-full cursor-pointer" aria-pressed={on} onClick={onShow}>
        <span className="fig ink-2 text-xs">{format(line.at, 'HH:mm')}</span>{' '}
        <span className="font-semibold">{line.author}</span>{' '}
        {shown.map((sentence, i) => (
          <span key={i} className="break-words">
            {i > 0 && '; '}
            {sentence}
          </span>
        ))}
        <span className="sr-only">: show the plan after this change</span>
      </button>
      {sentences.length > SHORT && (
        <button type="button" className="link link-hover ink-2 text-xs" onClick={() => setOpen(!open)}>
          {open ? 'fewer' : `and ${sentences.length - SHORT} more`}
        </button>
      )}
    </div>
  );
}

/** The plan after a change, with the ways back. */
function PastPlan({
  seq,
  begins,
  latest,
  line,
  onMoment,
}: {
  seq: number | null;
  begins: { seq: number; at: number } | null;
  latest: number;
  line: HistoryLine | null;
  onMoment: (seq: number | null) => void;
}) {
  const past = usePast(seq);
  const plans = useIsPlanner();
  const [restoring, setRestoring] = useState(false);
  return (
    <div className="grid grid-rows-[auto_minmax(0,1fr)_auto] min-h-0 min-w-0">
      <div className="flex flex-wrap items-center gap-2 p-2 border-b hair">
        {begins && latest > begins.seq && (
          <label className="flex items-center gap-2 flex-1 min-w-48">
            <span className="whitespace-nowrap">
              {seq === null ? 'As it stands' : past.at ? `As it was ${momentWord(past.at)}` : 'As it was …'}
            </span>
            <input
              type="range"
              className="range range-xs flex-1"
              aria-label="Moment of the log"
              aria-valuetext={seq === null ? 'now' : `after change ${seq} of ${latest}`}
              min={begins.seq}
              max={latest}
              value={seq ?? latest}
              onChange={(event) => {
                const to = event.currentTarget.valueAsNumber;
                onMoment(to >= latest ? null : to);
              }}
            />
            <span className="fig ink-2 text-xs whitespace-nowrap">
              {seq ?? latest} of {latest}
            </span>
          </label>
        )}
      </div>
      <div className="relative min-h-0">
        {past.error ? (
          <Failure title="The plan as it was cannot be shown" message={past.error.message} />
        ) : seq === null ? (
          <p className="ink-2 p-4">
            Pick a change at the left, or a moment above, to see the plan as it was then.
          </p>
        ) : past.scene ? (
          <Board scene={past.scene} ground={past.ground} label={`Plan as it was after change ${seq}`} />
        ) : (
          <Loading what="Going back" />
        )}
      </div>
      {seq !== null && (
        <div className="flex flex-wrap items-center gap-2 p-2 border-t hair">
          {line && <TakeBack line={line} />}
          {plans && (
            <button type="button" className="btn btn-xs" onClick={() => setRestoring(true)}>
              Bring the display back to this …
            </button>
          )}
          <button type="button" className="btn btn-xs btn-ghost" onClick={() => onMoment(null)}>
            Back to now
          </button>
        </div>
      )}
      {restoring && seq !== null && (
        <Restore seq={seq} at={past.at} onClose={() => setRestoring(false)} onDone={() => onMoment(null)} />
      )}
    </div>
  );
}

/** Reverts one change by a new one, or names what depends on it. */
function TakeBack({ line }: { line: HistoryLine }) {
  const link = useLink();
  const edit = useEdit();
  const plans = useIsPlanner();
  const [later, setLater] = useState<{ sentence: string; of: string[] } | null>(null);
  const back = useMutation({
    mutationFn: () => crewApi.takingBack(link.id, line.seq),
    onSuccess: (answer) => {
      if (answer.ok)
        edit.change(
          `took back: ${line.label || (line.descriptions[0]?.sentence ?? 'a change')}`,
          answer.changes,
        );
      else
        setLater({
          sentence: answer.sentence,
          of: answer.later.map((one) => `${one.seq}: ${one.author} ${one.label}`),
        });
    },
    onError: (error) => toast.error(error.message),
  });
  if (!line.mine && !plans) return null;
  return (
    <>
      <button type="button" className="btn btn-xs" disabled={back.isPending} onClick={() => back.mutate()}>
        Take this change back
      </button>
      <Dialog title="Something depends on it" open={later !== null} onClose={() => setLater(null)}>
        <p>{later?.sentence}</p>
        {later && later.of.length > 0 && (
          <>
            <p className="pt-2">Take these back first, the last first, if it has to go:</p>
            <ul className="list-disc pl-5">
              {later.of.map((word) => (
                <li key={word}>{word}</li>
              ))}
            </ul>
          </>
        )}
      </Dialog>
    </>
  );
}

function Restore({
  seq,
  at,
  onClose,
  onDone,
}: {
  seq: number;
  at: number | null;
  onClose: () => void;
  onDone: () => void;
}) {
  const link = useLink();
  const count = useMutation({ mutationFn: () => crewApi.restoring(link.id, seq) });
  const restore = useMutation({
    mutationFn: () => crewApi.restore(link.id, seq),
    onSuccess: (answer) => {
      toast(answer.seq === null ? 'Nothing differs.' : 'The display is as it was.');
      onClose();
      onDone();
    },
  });
  const { mutate } = count;
  useEffect(() => mutate(), [mutate]);
  return (
    <Dialog
      title={`Bring the display back to ${at ? dayWord(new Date(at).toISOString()) : ''}?`}
      open
      onClose={onClose}
    >
      {count.data && (
        <p>
          {countOf(count.data.add, 'thing')} {count.data.add === 1 ? 'comes' : 'come'} back,{' '}
          {count.data.patch} {count.data.patch === 1 ? 'is' : 'are'} set as before, {count.data.remove}{' '}
          {count.data.remove === 1 ? 'goes' : 'go'}.
        </p>
      )}
      <p className="ink-2 py-1">
        It is one new change in the log: nothing is erased, and it can be taken back like any other. Advice,
        answers, reports and people stay.
      </p>
      {(count.error ?? restore.error) && (
        <p role="alert" className="text-error">
          {(count.error ?? restore.error)?.message}
        </p>
      )}
      <button
        type="button"
        className="btn btn-sm btn-primary"
        disabled={restore.isPending || !count.data}
        onClick={() => restore.mutate()}
      >
        Bring it back
      </button>
    </Dialog>
  );
}
