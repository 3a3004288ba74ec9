import { Modal } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { ownRuleOptions } from '../api/queries';
import { BringInBox } from './BringInBox';
import { Register } from './Register';

interface BringInDialogProps {
  classId: number;
  manages: boolean;
  /** What was pasted; empty for nothing yet. */
  pasted: string;
  onClose: () => void;
}

/** Brings in writing from elsewhere, from wherever one stands: the page beneath stays as it is. */
export function BringInDialog({ classId, manages, pasted, onClose }: BringInDialogProps) {
  return (
    <Modal opened onClose={onClose} title="Bring in writing from elsewhere" size="xl" yOffset="8vh">
      {manages ? (
        <>
          <p className="muted above-0 below-3">
            Paste the address of a blog, of a feed or of one post. You see what stands there before anything is saved.
          </p>
          <BringInBox classId={classId} pasted={pasted} />
        </>
      ) : (
        <OwnBlog classId={classId} pasted={pasted} />
      )}
    </Modal>
  );
}

function OwnBlog({ classId, pasted }: { classId: number; pasted: string }) {
  const { data: rule } = useQuery(ownRuleOptions(classId));
  if (!rule) return null;
  return rule.own === 'STAFF_ONLY' ? (
    <p className="above-0 below-0">
      In this class your teacher adds outside blogs. Say the address of yours there. A single post you can bring in
      yourself, under Write.
    </p>
  ) : (
    <Register classId={classId} asks={rule.own === 'ASKED'} pasted={pasted} />
  );
}
