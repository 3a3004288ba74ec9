import { Modal, Textarea } from '@mantine/core';
import { useState } from 'react';
import { postJson } from '../api/client';
import { useWrite } from '../api/write';
import { Button } from '../ui/Button';

interface ReportProps {
  /** Where the report goes, such as /api/posts/7/reports. */
  at: string;
  /** What is reported, such as "this post". */
  what: string;
  className?: string;
}

/** For readers who find that something should not stand here. */
export function Report({ at, what, className = 'word' }: ReportProps) {
  const [open, setOpen] = useState(false);
  const [reason, setReason] = useState('');
  const [sent, setSent] = useState(false);
  const send = useWrite(() => postJson(at, { reason }), { here: true, onDone: () => setSent(true) });
  return (
    <>
      <button type="button" className={className} onClick={() => setOpen(true)}>
        {sent ? 'You reported it' : 'Report it'}
      </button>
      <Modal opened={open} onClose={() => setOpen(false)} title={sent ? 'Thank you' : `Report ${what}`}>
        {sent ? (
          <p className="above-0">A teacher looks at it. Nobody else learns that you told us.</p>
        ) : (
          <form
            onSubmit={(e) => {
              e.preventDefault();
              send.run();
            }}
          >
            <p className="muted above-0">
              Is it unkind, private, or wrong to stand here? A teacher will look at it. Its author does not learn who
              told us.
            </p>
            <Textarea
              label="What is wrong with it? You can leave this empty."
              data-autofocus
              autosize
              minRows={3}
              maxLength={500}
              value={reason}
              error={send.problem}
              onChange={(e) => setReason(e.target.value)}
            />
            <Button className="above-4" go type="submit">
              Tell a teacher
            </Button>
          </form>
        )}
      </Modal>
    </>
  );
}
