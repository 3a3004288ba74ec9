import { Drawer } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { paperOptions } from '../api/queries';
import { Steps } from '../ui/Steps';
import { Loading, Trouble } from '../ui/Trouble';
import css from './Mark.module.css';
import { PaperTexts } from './PaperTexts';

interface PaperBesideProps {
  prompt: number;
  student: number;
  classId: number;
  onClose: () => void;
}

/** One paper beside the score sheet, with what was given for it; to be looked at. */
export function PaperBeside({ prompt, student, classId, onClose }: PaperBesideProps) {
  const { data: paper, error } = useQuery(paperOptions(prompt, student));
  const score = paper?.given.score;
  return (
    <Drawer
      opened
      onClose={onClose}
      position="right"
      size="min(620px, 100vw)"
      title={paper ? `${paper.together?.name ?? paper.student}` : 'A paper'}
    >
      {error && <Trouble error={error} />}
      {!paper && !error && <Loading />}
      {paper && (
        <>
          <p className="row wrap above-0">
            {score && (
              <span>
                <b>{score.points}</b> of {score.outOf}
                {score.provisional && ', so far'}
                {paper.given.releasedAt ? '' : ', not released'}
              </span>
            )}
            <Link className="word push" to={`/classes/${classId}/mark/${prompt}/${student}`}>
              Mark it
            </Link>
          </p>
          {paper.given.word && <p className={css.given}>{paper.given.word}</p>}
          <PaperTexts paper={paper} classId={classId} />
          {paper.rubric && paper.given.marks.length > 0 && (
            <div className={css.beside}>
              {paper.rubric.criteria.map((c) => {
                const mark = paper.given.marks.find((m) => m.criterion === c.id);
                return (
                  <div key={c.id} className={css.stair}>
                    <Steps criterion={c} mark={mark} />
                    {mark?.remark && <p className={css.given}>{mark.remark}</p>}
                  </div>
                );
              })}
            </div>
          )}
        </>
      )}
    </Drawer>
  );
}
