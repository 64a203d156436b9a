import { useState } from 'react';
import { countOf } from '@quarry/core/grid';
import type { EvaluatedFinding } from '@quarry/core/findings';
import type { Change } from '@quarry/core/document';
import { freshId, useDisplay, useEdit, useDenialReason, useScene } from '../data/useDisplay.tsx';

/** Accepting findings: with one reason, in one act. */
export function useAccept() {
  const scene = useScene('person');
  const actor = useDisplay(({ actor }) => actor);
  const edit = useEdit();
  const may = useDenialReason();
  return {
    forbids: may({ op: 'add', kind: 'acceptance', id: 'a', data: {} }),
    accept(findings: readonly EvaluatedFinding[], reason: string): boolean {
      const by = actor.person ? (scene.person[actor.person]?.name ?? '') : '';
      const at = new Date().toISOString();
      const [first] = findings;
      if (!first) return false;
      const changes = findings.map(({ key, fingerprint }): Change => ({
        ...{ op: 'add', kind: 'acceptance', id: freshId('acceptance') },
        data: { finding: key, fingerprint, reason: reason.trim(), by, at },
      }));
      const words = findings.length === 1 ? 'a finding' : countOf(findings.length, 'finding');
      return edit.change(`accepted ${words}: ${first.rule}`, changes);
    },
  };
}

/** The reason for accepting one finding, or all of a kind. */
export function AcceptForm({
  findings,
  onDone,
}: {
  findings: readonly EvaluatedFinding[];
  onDone: () => void;
}) {
  const { accept } = useAccept();
  const [reason, setReason] = useState('');
  return (
    <form
      className="flex gap-1 py-1"
      onSubmit={(event) => {
        event.preventDefault();
        if (reason.trim() && accept(findings, reason)) onDone();
      }}
    >
      <input
        autoFocus
        className="input input-xs max-lg:input-md flex-1"
        aria-label="Reason for accepting"
        placeholder="Why is it all right?"
        maxLength={500}
        value={reason}
        onChange={(event) => setReason(event.currentTarget.value)}
        onKeyDown={(event) => {
          if (event.key !== 'Escape') return;
          event.stopPropagation();
          onDone();
        }}
      />
      <button type="submit" className="btn btn-xs max-lg:btn-md btn-primary" disabled={reason.trim() === ''}>
        {findings.length === 1 ? 'Accept' : `Accept ${findings.length}`}
      </button>
    </form>
  );
}
