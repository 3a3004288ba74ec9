import { useState } from 'react';
import type { Evidence, Paper, Rubric } from '../api/schema';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Steps } from '../ui/Steps';
import css from './Mark.module.css';

interface DockProps {
  paper: Paper;
  rubric: Rubric;
  stair: number;
  open: 'remark' | 'word' | null;
  onStair: (index: number) => void;
  onOpen: (what: 'remark' | 'word' | null) => void;
  onChoose: (index: number, points: number) => void;
  onRemark: (index: number, remark: string) => void;
  onWord: (word: string) => void;
  onNext: () => void;
}

/** What the program counted, said under the stair for which it matters most. */
function evidenceOf(e: Evidence, index: number): string {
  const lines = [
    e.pictures
      ? `${t.count(e.pictures, 'picture', 'pictures')}, ${e.described === e.pictures ? 'all described' : `${e.described} described`}`
      : 'no pictures',
    e.links ? t.count(e.links, 'link', 'links') : 'no links',
    `${t.count(e.comments, 'comment', 'comments')} given${e.commentsAsked ? `, ${e.commentsAsked} asked for` : ''}`,
    `${t.count(e.words, 'word', 'words')}, ${t.count(e.tags, 'tag', 'tags')}`,
  ];
  return lines[index] ?? '';
}

/** The steps at the foot of the marking page, with the sum at their end. */
export function Dock({ paper, rubric, stair, open, onStair, onOpen, onChoose, onRemark, onWord, onNext }: DockProps) {
  const { score } = paper;
  return (
    <section className={css.dock} aria-labelledby="steps">
      <h2 id="steps" className="away">
        Steps
      </h2>
      <div className={css.stairs}>
        {rubric.criteria.map((c, i) => {
          const mark = paper.marks.find((m) => m.criterion === i);
          const isCurrent = i === stair;
          return (
            // biome-ignore lint/a11y: by keyboard one goes from stair to stair with the arrows
            <div
              key={c.name}
              className={css.stair}
              aria-current={isCurrent}
              onClick={() => {
                if (!isCurrent) onStair(i);
              }}
            >
              <Steps
                criterion={c}
                mark={mark}
                isCurrent={isCurrent}
                onChoose={(points) => {
                  onStair(i);
                  onChoose(i, points);
                }}
              />
              {isCurrent && mark?.points === undefined && (
                <p className={`keyed ${css.descriptor}`}>
                  {c.levels.map((l, n) => (
                    <span key={l.points}>
                      <span className="key">{n + 1}</span>{' '}
                    </span>
                  ))}
                  <span className="muted">chooses, </span>
                  <span className="key">C</span>
                  <span className="muted"> adds a word</span>
                </p>
              )}
              {paper.evidence && <p className={css.evidence}>{evidenceOf(paper.evidence, i)}</p>}
              {isCurrent && open === 'remark' ? (
                <Remark
                  label={`Comment on ${c.name}`}
                  begin={mark?.remark ?? ''}
                  onKeep={(text) => {
                    onRemark(i, text);
                    onOpen(null);
                  }}
                />
              ) : (
                mark?.remark && <p className={css.given}>{mark.remark}</p>
              )}
            </div>
          );
        })}
      </div>
      <div className={css.sum}>
        {score && (
          <>
            <div className="muted tiny">
              {score.provisional ? `So far, ${t.count(score.open, 'step', 'steps')} open` : 'Total'}
            </div>
            <b data-testid="total">{score.points}</b>
            <span className={css.of}> of {score.outOf}</span>
            {paper.daysLate > 0 && (
              <div className="tiny muted above-2 below-0">
                late: {t.count(paper.daysLate, 'day', 'days')}, − {score.percentLost} %
              </div>
            )}
          </>
        )}
        {open === 'word' ? (
          <Remark
            label="A word on the whole"
            begin={paper.word}
            onKeep={(text) => {
              onWord(text);
              onOpen(null);
            }}
          />
        ) : (
          paper.word && <p className={css.given}>{paper.word}</p>
        )}
        <Button className={css.btn2} onClick={() => onOpen('word')}>
          A word <span className="key">W</span>
        </Button>
        <Button className={css.btn2} onClick={onNext}>
          Next <span className="key">N</span>
        </Button>
      </div>
    </section>
  );
}

function Remark({ label, begin, onKeep }: { label: string; begin: string; onKeep: (text: string) => void }) {
  const [text, setText] = useState(begin);
  return (
    <textarea
      className={css.remark}
      aria-label={label}
      placeholder={label}
      autoFocus
      value={text}
      onChange={(e) => setText(e.target.value)}
      onBlur={() => onKeep(text)}
      onKeyDown={(e) => {
        if (e.key === 'Escape' || (e.key === 'Enter' && !e.shiftKey)) {
          e.preventDefault();
          e.currentTarget.blur();
        }
      }}
    />
  );
}
