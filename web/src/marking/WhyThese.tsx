import { Modal } from '@mantine/core';
import type { Sheet, StudentLine } from '../api/schema';
import { t } from '../texts/en';
import css from './ScoreSheet.module.css';

interface WhyTheseProps {
  student: StudentLine;
  /** The place of the bundle in the sheet. */
  bundle: number;
  sheet: Sheet;
  onClose: () => void;
}

/** Why a bundle comes to what it does for a student: what counts in it, and what does not. */
export function WhyThese({ student, bundle, sheet, onClose }: WhyTheseProps) {
  const { name, best } = sheet.bundles[bundle];
  const papers = sheet.prompts
    .map((prompt, at) => ({ prompt, cell: student.cells[at] }))
    .filter(({ prompt }) => prompt.bundle === bundle);
  const counted = papers.filter(({ cell }) => cell.counts);
  const rest = papers.filter(({ cell }) => !cell.counts);
  const chosen = best > 0 && rest.some(({ cell }) => cell.state === 'RELEASED' || cell.state === 'MISSING');
  return (
    <Modal opened onClose={onClose} title={`${name}: ${student.name}`}>
      <p className="above-0 below-2">
        {chosen
          ? `The best ${best} count: no other ${best} of these come to a larger share of their points.`
          : 'All that students have seen counts.'}
      </p>
      <ul className={css.papers}>
        {counted.map(({ prompt, cell }) => (
          <li key={prompt.id}>
            <span>{prompt.title}</span>
            <span>
              {cell.state === 'MISSING' ? 'nothing came: 0' : cell.points} of {prompt.points}
            </span>
          </li>
        ))}
      </ul>
      {rest.length > 0 && (
        <>
          <p className="tiny muted above-3 below-1">Not counted</p>
          <ul className={`${css.papers} muted`}>
            {rest.map(({ prompt, cell }) => (
              <li key={prompt.id}>
                <span>{prompt.title}</span>
                <span>
                  {cell.state === 'RELEASED'
                    ? `${cell.points} of ${prompt.points}`
                    : t.states[cell.state].toLowerCase()}
                </span>
              </li>
            ))}
          </ul>
        </>
      )}
    </Modal>
  );
}
