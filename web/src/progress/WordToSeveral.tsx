import { Checkbox, Modal, Textarea } from '@mantine/core';
import { useState } from 'react';
import { postJson } from '../api/client';
import type { Told, WeeksLine } from '../api/schema';
import { useWrite } from '../api/write';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Wrong } from '../ui/Wrong';
import css from './Weeks.module.css';

interface WordToSeveralProps {
  classId: number;
  students: WeeksLine[];
  onClose: () => void;
}

/** One private word to each of several students; none of them sees who else got it. */
export function WordToSeveral({ classId, students, onClose }: WordToSeveralProps) {
  const [chosen, setChosen] = useState(() => new Set(students.map((s) => s.studentId)));
  const [text, setText] = useState('');
  const [told, setTold] = useState(0);
  const send = useWrite(
    () => postJson<Told>(`/api/classes/${classId}/words/several`, { students: [...chosen], text }),
    { stale: [['asides']], here: true, onDone: (answer) => setTold(answer.students) },
  );
  const pick = (student: number) =>
    setChosen((before) => {
      const next = new Set(before);
      if (!next.delete(student)) next.add(student);
      return next;
    });
  return (
    <Modal opened onClose={onClose} title="A private word to several">
      {told > 0 ? (
        <>
          <p className="above-0">
            Written to {t.count(told, 'student', 'students')}. Each finds it over My writing and can answer you there.
          </p>
          <Button go onClick={onClose}>
            Close
          </Button>
        </>
      ) : (
        <form
          onSubmit={(e) => {
            e.preventDefault();
            if (!send.busy) send.run();
          }}
        >
          <fieldset className={css.choice}>
            <legend className="muted">Each gets it alone, and does not see who else did.</legend>
            {students.map((s) => (
              <Checkbox
                key={s.studentId}
                className="above-1"
                label={s.name}
                checked={chosen.has(s.studentId)}
                onChange={() => pick(s.studentId)}
              />
            ))}
          </fieldset>
          <Textarea
            className="above-3 below-3"
            label="What you write"
            autosize
            minRows={3}
            value={text}
            onChange={(e) => setText(e.currentTarget.value)}
          />
          <Wrong says={send.problem} />
          <Button go type="submit" disabled={send.busy || chosen.size === 0 || !text.trim()}>
            Send to {t.count(chosen.size, 'student', 'students')}
          </Button>
        </form>
      )}
    </Modal>
  );
}
