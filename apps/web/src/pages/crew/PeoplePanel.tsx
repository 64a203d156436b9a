import { useMutation, useQuery } from '@tanstack/react-query';
import { format, formatDistanceToNow } from 'date-fns';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { ROLES, listOf } from '@quarry/core/document';
import { keys, queryClient } from '../../data/api.ts';
import type { Member } from '@quarry/protocol/crew';
import { INVITED_ROLES, crewApi } from '../../data/crewApi.ts';
import { useDisplay, useLink, useScene } from '../../data/useDisplay.tsx';
import { CopyButton } from '../../ui/CopyButton.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { Trouble } from '../../ui/forms.tsx';
import { Basis, Dialog, Empty, Failure, Heading, Loading } from '../../ui/parts.tsx';
import { SharePart } from './SharePart.tsx';

const ROLE_WORDS: Record<Member['role'], string> = {
  owner: 'everything, and who is on it',
  planner: 'all of the plan',
  builder: 'own sections and stock; may propose elsewhere',
  viewer: 'nothing; looks and advises',
};

/** Accounts on this display, what each may do, and the links by which others join. */
export function PeoplePanel() {
  const link = useLink();
  const role = useDisplay(({ actor }) => actor.role);
  const members = useQuery({ queryKey: keys.members(link.id), queryFn: () => crewApi.members(link.id) });
  if (members.isPending) return <Loading what="Calling the crew" />;
  if (members.isError) return <Failure title="The crew cannot be listed" message={members.error.message} />;
  return (
    <div className="p-3 sm:p-4 grid gap-6 xl:grid-cols-[minmax(0,1fr)_340px] items-start">
      <Members members={members.data} />
      <div>
        <SharePart />
        {role === 'owner' && <Invitations members={members.data} />}
      </div>
    </div>
  );
}

const again = (id: string) =>
  Promise.all([
    queryClient.invalidateQueries({ queryKey: keys.members(id) }),
    queryClient.invalidateQueries({ queryKey: keys.invitations(id) }),
  ]);

/** What an owner does with a member. */
interface MemberAct {
  what: 'owner' | 'remove' | 'code';
  member: Member;
}

function MemberActs({
  member,
  owns,
  isSelf,
  onAct,
}: {
  member: Member;
  owns: boolean;
  isSelf: boolean;
  onAct: (act: MemberAct) => void;
}) {
  return (
    <>
      {owns && !isSelf && member.role !== 'owner' && (
        <button
          type="button"
          className="btn btn-xs btn-ghost"
          onClick={() => onAct({ what: 'owner', member })}
        >
          Make owner<span className="sr-only"> {member.name}</span>
        </button>
      )}
      {member.mayReset && (
        <button
          type="button"
          className="btn btn-xs btn-ghost"
          onClick={() => onAct({ what: 'code', member })}
        >
          Password code<span className="sr-only"> for {member.name}</span>
        </button>
      )}
      {(owns || isSelf) && (
        <button
          type="button"
          className="btn btn-xs btn-ghost"
          onClick={() => onAct({ what: 'remove', member })}
        >
          {isSelf ? 'Leave' : 'Take off'}
          <span className="sr-only"> {isSelf ? 'this display' : member.name}</span>
        </button>
      )}
    </>
  );
}

function Members({ members }: { members: readonly Member[] }) {
  const link = useLink();
  const scene = useScene('person');
  const here = useDisplay(({ here }) => here);
  const { role: mine, person: me } = useDisplay(({ actor }) => actor);
  const navigate = useNavigate();
  const [act, setAct] = useState<MemberAct | null>(null);
  const change = useMutation({
    mutationFn: ({ userId, ...set }: { userId: string; role?: Member['role']; person?: string | null }) =>
      crewApi.setMember(link.id, userId, set),
    onError: (error) => toast.error(error.message),
    onSettled: () => again(link.id),
  });
  const owns = mine === 'owner';
  const people = listOf(scene, 'person');
  const isSelf = ({ person }: Member) => person !== null && person === me;
  return (
    <section aria-labelledby="members">
      <Heading id="members" aside={`${members.length}`}>
        On this display
      </Heading>
      <DataTable
        label="Members"
        rows={members}
        keyOf={({ userId }) => userId}
        columns={[
          {
            head: 'Account',
            cell: (member) => (
              <b className="font-semibold whitespace-nowrap">
                {member.name}
                {isSelf(member) && <span className="font-normal ink-2"> (you)</span>}
                {member.login && <span className="block fig font-normal ink-2">{member.login}</span>}
              </b>
            ),
          },
          {
            head: 'Is',
            cell: (member) =>
              owns ? (
                <select
                  className="select select-xs w-36"
                  aria-label={`Person of ${member.name}`}
                  value={member.person ?? ''}
                  onChange={(event) =>
                    change.mutate({ userId: member.userId, person: event.currentTarget.value || null })
                  }
                >
                  <option value="">nobody on the plan</option>
                  {people.map(({ id, name }) => (
                    <option key={id} value={id}>
                      {name}
                    </option>
                  ))}
                </select>
              ) : (
                member.person !== null && scene.person[member.person]?.name
              ),
          },
          {
            head: 'May change',
            wraps: true,
            cell: (member) => (
              <>
                {owns ? (
                  <select
                    className="select select-xs w-24"
                    aria-label={`Role of ${member.name}`}
                    value={member.role}
                    onChange={(event) => {
                      const role = ROLES.find((one) => one === event.currentTarget.value);
                      if (role) change.mutate({ userId: member.userId, role });
                    }}
                  >
                    {ROLES.map((role) => (
                      <option key={role}>{role}</option>
                    ))}
                  </select>
                ) : (
                  <span className="font-semibold">{member.role}</span>
                )}
                <span className="block ink-2 text-[11px]">{ROLE_WORDS[member.role]}</span>
              </>
            ),
          },
          {
            head: 'Last seen',
            cell: (member) => {
              const present = here.some(({ person }) => person !== null && person === member.person);
              if (present || member.here)
                return <span className="text-secondary font-semibold">here now</span>;
              if (member.seenAt) return `${formatDistanceToNow(member.seenAt)} ago`;
              return <span className="ink-2">not yet</span>;
            },
          },
          {
            head: 'Acts',
            acts: true,
            cell: (member) => <MemberActs {...{ member, owns }} isSelf={isSelf(member)} onAct={setAct} />,
          },
        ]}
      />
      <Basis>
        Every request is judged by the server against the role of that moment: a role that is changed holds at
        once, in windows that are open too. Advice and answers stay in the name of whoever gave them.
      </Basis>
      {act && (
        <ActDialog
          {...act}
          self={act.member.person === me}
          onClose={() => setAct(null)}
          onLeft={() => void navigate('/')}
        />
      )}
    </section>
  );
}

function ActDialog({
  what,
  member,
  self,
  onClose,
  onLeft,
}: {
  what: 'owner' | 'remove' | 'code';
  member: Member;
  self: boolean;
  onClose: () => void;
  onLeft: () => void;
}) {
  const link = useLink();
  const done = () => {
    void again(link.id);
    if (what === 'remove' && self) onLeft();
    else onClose();
  };
  const act = useMutation({
    mutationFn: () =>
      what === 'owner'
        ? crewApi.makeOwner(link.id, member.userId)
        : crewApi.removeMember(link.id, member.userId),
    onSuccess: done,
  });
  const code = useMutation({ mutationFn: () => crewApi.resetCode(link.id, member.userId) });
  const text = {
    owner: {
      title: `Make ${member.name} the owner?`,
      words: 'You become a planner: you still change all of the plan, but no longer who is on it.',
      word: 'Make owner',
    },
    remove: {
      title: self ? 'Leave this display?' : `Take ${member.name} off this display?`,
      words: self
        ? 'You will not see it any more. What you built and said stays; an owner can invite you again.'
        : 'It closes in their windows at once. What they built and said stays, and you can invite them again.',
      word: self ? 'Leave' : 'Take off',
    },
    code: {
      title: `A password code for ${member.name}`,
      words:
        'With this code they can set a new password, once, within a day. Hand it over in person or by telephone, and only to them: it opens their account.',
      word: 'Make the code',
    },
  }[what];
  return (
    <Dialog title={text.title} open onClose={onClose}>
      <p className="pb-2">{text.words}</p>
      <Trouble error={act.error ?? code.error} />
      {code.data ? (
        <p>
          <span className="fig text-lg select-all">{code.data.code}</span>{' '}
          <span className="ink-2">until {format(code.data.expiresAt, 'd MMM, HH:mm')}; shown this once</span>
        </p>
      ) : (
        <button
          type="button"
          className="btn btn-sm btn-primary"
          disabled={act.isPending || code.isPending}
          onClick={() => (what === 'code' ? code.mutate() : act.mutate())}
        >
          {text.word}
        </button>
      )}
    </Dialog>
  );
}

function Invitations({ members }: { members: readonly Member[] }) {
  const link = useLink();
  const scene = useScene('person');
  const [role, setRole] = useState<(typeof INVITED_ROLES)[number]>('builder');
  const [person, setPerson] = useState('');
  const [days, setDays] = useState(14);
  const [note, setNote] = useState('');
  const invitations = useQuery({
    queryKey: keys.invitations(link.id),
    queryFn: () => crewApi.invitations(link.id),
  });
  const invite = useMutation({
    mutationFn: () => crewApi.invite(link.id, { role, person: person || null, days, note }),
    onSuccess: () => {
      setNote('');
      setPerson('');
    },
    onSettled: () => again(link.id),
  });
  const revoke = useMutation({
    mutationFn: (id: string) => crewApi.revoke(link.id, id),
    onError: (error) => toast.error(error.message),
    onSettled: () => again(link.id),
  });
  const free = listOf(scene, 'person').filter(({ id }) => !members.some((member) => member.person === id));
  const url = invite.data && `${location.origin}/join/${invite.data.token}`;
  const open = invitations.data?.filter(({ state }) => state === 'open') ?? [];
  const closed = invitations.data?.filter(({ state }) => state !== 'open') ?? [];
  return (
    <section aria-labelledby="invitations">
      <Heading id="invitations" aside={open.length > 0 ? `${open.length} open` : undefined}>
        Invite by a link
      </Heading>
      <form
        className="flex flex-col gap-1.5"
        onSubmit={(event) => {
          event.preventDefault();
          invite.mutate();
        }}
      >
        <label className="flex items-center gap-2">
          <span className="w-20">As</span>
          <select
            className="select select-xs flex-1"
            value={role}
            onChange={(event) =>
              setRole(INVITED_ROLES.find((one) => one === event.currentTarget.value) ?? role)
            }
          >
            {INVITED_ROLES.map((one) => (
              <option key={one}>{one}</option>
            ))}
          </select>
        </label>
        <p className="ink-2 text-xs">May change: {ROLE_WORDS[role]}.</p>
        <label className="flex items-center gap-2">
          <span className="w-20">Will be</span>
          <select
            className="select select-xs flex-1"
            value={person}
            onChange={(event) => setPerson(event.currentTarget.value)}
          >
            <option value="">a new person</option>
            {free.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <label className="flex items-center gap-2">
          <span className="w-20">Good for</span>
          <input
            type="number"
            className="input input-xs w-16 fig text-right"
            min={1}
            max={60}
            value={days}
            onChange={(event) => setDays(Math.min(60, Math.max(1, event.currentTarget.valueAsNumber || 1)))}
          />
          <span className="ink-2">days, once</span>
        </label>
        <label className="flex items-center gap-2">
          <span className="w-20">A word</span>
          <input
            className="input input-xs flex-1"
            maxLength={200}
            value={note}
            onChange={(event) => setNote(event.currentTarget.value)}
          />
        </label>
        <button type="submit" className="btn btn-xs btn-primary self-start" disabled={invite.isPending}>
          Make a link
        </button>
        <Trouble error={invite.error} />
      </form>
      {url && (
        <div role="status" className="border-l-2 border-secondary pl-2 my-2">
          <p className="fig text-xs break-all select-all">{url}</p>
          <p className="ink-2 text-xs">
            Shown this once. Whoever opens it first joins. <CopyButton text={url} what="The link" />
          </p>
        </div>
      )}
      {invitations.data?.length === 0 && (
        <Empty title="Nobody is invited">Links you make stand here until they are used or taken back.</Empty>
      )}
      <ul>
        {[...open, ...closed].slice(0, 20).map((line) => (
          <li key={line.id} className="flex items-baseline gap-2 border-b hair py-1">
            <span className="flex-1">
              {line.role}
              {line.person && `, ${scene.person[line.person]?.name ?? ''}`}
              {line.note && <span className="ink-2"> {line.note}</span>}
            </span>
            {line.state === 'open' ? (
              <>
                <span className="ink-2 text-xs">until {format(line.expiresAt, 'd MMM')}</span>
                <button
                  type="button"
                  className="btn btn-xs btn-ghost"
                  onClick={() => revoke.mutate(line.id)}
                  aria-label={`Take back the invitation as ${line.role}`}
                >
                  Take back
                </button>
              </>
            ) : (
              <span className="ink-2 text-xs">
                {line.state === 'used'
                  ? `used by ${line.usedBy ?? 'someone'}`
                  : line.state === 'revoked'
                    ? 'taken back'
                    : 'too old'}
              </span>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
