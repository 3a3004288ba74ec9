import { Modal, Select } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { putJson } from '../api/client';
import { approvalOptions } from '../api/queries';
import type { Approval, InForce, MemberLine } from '../api/schema';
import { useWrite } from '../api/write';
import { useClass } from '../session/useClass';
import { policyChoices, policyInWords } from '../texts/en';
import { Button } from '../ui/Button';
import { Loading, Trouble } from '../ui/Trouble';
import { Wrong } from '../ui/Wrong';

const CHOICES = [{ value: '', label: 'as the blog or the class says' }, ...policyChoices()];
const WHOSE: Record<string, string> = {
  STUDENT: 'set for this student',
  BLOG: 'a rule of the blog',
  CLASS: 'the rule of the class',
  TRUST: 'trust has been earned',
};

/** How texts of one student are looked at, and which of the settings says so. */
export function ApprovalDialog({ person, onClose }: { person: MemberLine; onClose: () => void }) {
  const { id } = useClass();
  const approval = useQuery(approvalOptions(id, person.id));
  return (
    <Modal opened onClose={onClose} title={`Approving what ${person.name} writes`}>
      {approval.isError && <Trouble error={approval.error} />}
      {approval.data ? <Form now={approval.data} person={person} classId={id} onClose={onClose} /> : <Loading />}
    </Modal>
  );
}

function Form({
  now,
  person,
  classId,
  onClose,
}: {
  now: Approval;
  person: MemberLine;
  classId: number;
  onClose: () => void;
}) {
  const [posts, setPosts] = useState(now.posts ?? '');
  const [comments, setComments] = useState(now.comments ?? '');
  const save = useWrite(
    () =>
      putJson<Approval>(`/api/classes/${classId}/people/${person.id}/approval`, {
        posts: posts || undefined,
        comments: comments || undefined,
      }),
    { here: true, fills: approvalOptions(classId, person.id).queryKey, onDone: onClose },
  );
  const inForce = (of: InForce) =>
    `Now: ${policyInWords[of.policy]}; ${WHOSE[of.source]}. A blog with a rule of its own may say otherwise.`;
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        save.run();
      }}
    >
      <Select
        label="A post is looked at"
        description={inForce(now.postsNow)}
        data={CHOICES}
        value={posts}
        onChange={(v) => setPosts(v ?? '')}
        allowDeselect={false}
      />
      <Select
        label="A comment is looked at"
        mt="md"
        description={inForce(now.commentsNow)}
        data={CHOICES}
        value={comments}
        onChange={(v) => setComments(v ?? '')}
        allowDeselect={false}
      />
      {now.trustAfter > 0 && (
        <p className="tiny muted above-4 below-0">
          {now.approvalsInRow >= now.trustAfter
            ? 'Trust has been earned.'
            : `${now.approvalsInRow} of ${now.trustAfter} approvals in a row towards earned trust.`}{' '}
          What is set here for posts outweighs it.
        </p>
      )}
      <Wrong says={save.problem} />
      <Button className="above-4" go type="submit">
        Use this
      </Button>
    </form>
  );
}
