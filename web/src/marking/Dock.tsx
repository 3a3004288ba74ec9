import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { earlierOptions } from '../api/queries';
import type { Criterion, MarkView, Paper, PaperEvidence, Rubric } from '../api/schema';
import { COUNTED, type Counted, saysCounted } from '../prompts/counted';
import { stepsApart } from '../reviews/apart';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Steps } from '../ui/Steps';
import { Word } from '../ui/Word';
import css from './Mark.module.css';
import { Remark } from './Remark';
import type { useGiving } from './useGiving';

/** The field that is open at the foot. */
export type Opened = 'remark' | 'word' | 'points' | null;

interface DockProps {
  paper: Paper;
  rubric: Rubric;
  stair: number;
  open: Opened;
  giving: ReturnType<typeof useGiving>;
  /** Whether one looks at what was given earlier. */
  looksBack: boolean;
  onLookBack: () => void;
  onStair: (index: number) => void;
  onOpen: (what: Opened) => void;
  /** Feedback that is spoken. */
  onSay: () => void;
  onNext: () => void;
  /** Without it there is nothing to be shown yet, or one may not. */
  onRelease?: () => void;
}

const isNoPicture = (c: { what: Counted; number: number }) => c.what !== 'PICTURES' || c.number === 0;

/** What the program counted of what a stair looks at; of all things where the rubric says nothing of it. */
const countedFor = (evidence: PaperEvidence, what: Counted[]) =>
  evidence.counts
    .filter((c) => what.includes(c.what) && !(c.what === 'DESCRIBED' && evidence.counts.every(isNoPicture)))
    .map((c) => saysCounted(c.what, c.number, evidence.commentsAsked))
    .join(', ');

/** The steps at the foot of the marking page, with the sum at their end. */
export function Dock({
  paper,
  rubric,
  stair,
  open,
  giving,
  looksBack,
  onLookBack,
  onStair,
  onOpen,
  onSay,
  onNext,
  onRelease,
}: DockProps) {
  const { score, word } = paper.given;
  const { evidence } = paper;
  return (
    <section className={css.dock} aria-labelledby="steps">
      <h2 id="steps" className="away">
        Steps
      </h2>
      <div className={css.stairs}>
        {rubric.criteria.map((c, i) => {
          const mark = paper.given.marks.find((m) => m.criterion === c.id);
          const isCurrent = i === stair;
          const proposed = evidence?.proposed.find((p) => p.criterion === c.id);
          return (
            // biome-ignore lint/a11y: by keyboard one goes from stair to stair with the arrows
            <div
              key={c.id}
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
                dots={dotsOf(c, paper)}
                onChoose={(points) => {
                  onStair(i);
                  giving.choose(c, points);
                }}
              />
              {isCurrent && mark?.points === undefined && !mark?.notCounted && (
                <p className={`keyed ${css.descriptor}`}>
                  {c.levels.map((l, n) => (
                    <span key={l.points}>
                      <span className="key">{n + 1}</span>{' '}
                    </span>
                  ))}
                  <span className="muted">chooses, </span>
                  <span className="key">C</span>
                  <span className="muted"> adds a word, </span>
                  <span className="key">?</span>
                  <span className="muted"> more</span>
                </p>
              )}
              {evidence && c.counted.length > 0 && (
                <p className={css.evidence}>
                  {countedFor(
                    evidence,
                    c.counted.map((m) => m.what),
                  )}
                  {proposed && proposed.points !== mark?.points && (
                    <>
                      {': '}
                      <Word tiny onClick={() => giving.choose(c, proposed.points)}>
                        “{levelOf(c, proposed.points)}” by the numbers
                      </Word>
                    </>
                  )}
                </p>
              )}
              <OwnWords criterion={c} paper={paper} />
              {isCurrent && <Earlier paper={paper} criterion={c.id} open={looksBack} onToggle={onLookBack} />}
              {isCurrent && open === 'points' && (
                <Between
                  name={c.name}
                  lowest={c.levels[0].points}
                  highest={c.levels[c.levels.length - 1].points}
                  onKeep={(points) => {
                    if (points !== undefined) giving.choose(c, points);
                    onOpen(null);
                  }}
                />
              )}
              {isCurrent && open === 'remark' ? (
                <Remark
                  label={`Comment on ${c.name}`}
                  criterion={c.name}
                  level={levelOf(c, mark?.points)}
                  begin={mark?.remark ?? ''}
                  onKeep={(text) => {
                    giving.remark(c, text);
                    onOpen(null);
                  }}
                />
              ) : (
                mark?.remark && <p className={css.given}>{mark.remark}</p>
              )}
            </div>
          );
        })}
        {evidence && rubric.criteria.every((c) => c.counted.length === 0) && (
          <p className={`${css.evidence} ${css.inAll}`}>{countedFor(evidence, COUNTED)}</p>
        )}
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
            criterion=""
            level=""
            begin={word}
            onKeep={(text) => {
              giving.word(text);
              onOpen(null);
            }}
          />
        ) : (
          word && <p className={css.given}>{word}</p>
        )}
        <Button className={css.btn2} onClick={() => onOpen('word')}>
          A word <span className="key">W</span>
        </Button>
        <p className="tiny muted above-1 below-0">
          or{' '}
          <Word tiny onClick={onSay}>
            say it
          </Word>{' '}
          <span className="key">V</span>
        </p>
        <Button className={css.btn2} onClick={onNext}>
          Next <span className="key">N</span>
        </Button>
        {onRelease && (
          <Button className={css.btn2} onClick={onRelease}>
            Release this one
          </Button>
        )}
      </div>
    </section>
  );
}

/** The steps that the student gave, and those who read it a second time. */
function dotsOf(c: Criterion, paper: Paper) {
  const readers: { who: string; given?: { marks: MarkView[] }; ring: boolean }[] = [
    { who: 'the student', given: paper.own, ring: false },
    { who: 'classmates together', given: paper.peers, ring: true },
    ...paper.seconds.map((s) => ({ who: s.reader, given: s.given, ring: true })),
  ];
  return readers.flatMap(({ who, given, ring }) => {
    const points = given?.marks.find((m) => m.criterion === c.id)?.points;
    return points === undefined ? [] : [{ who, points, ring }];
  });
}

/** What the student said of a stair, and how far that lies from the marks. */
function OwnWords({ criterion, paper }: { criterion: Criterion; paper: Paper }) {
  const own = paper.own?.marks.find((m) => m.criterion === criterion.id);
  const apart = paper.given.apart.find((a) => a.criterion === criterion.id);
  if (!own || (!own.remark && !apart)) return null;
  return (
    <p className={css.evidence}>
      <span className={css.dot} /> {apart ? `seen ${stepsApart(apart.steps)}` : 'the student'}
      {own.remark && `: “${own.remark}”`}
    </p>
  );
}

/** The name of the highest step that points reach; empty while there are none. */
const levelOf = (c: Criterion, points?: number) =>
  (points !== undefined && c.levels.filter((l) => l.points <= points).at(-1)?.name) || '';

const EARLIER_SHOWN = 3;

interface EarlierProps {
  paper: Paper;
  criterion: string;
  open: boolean;
  onToggle: () => void;
}

/** What the same student was given before on a stair of the same name. */
function Earlier({ paper, criterion, open, onToggle }: EarlierProps) {
  const { data } = useQuery({ ...earlierOptions(paper.promptId, paper.studentId), enabled: open });
  const marks = data?.[criterion] ?? [];
  return (
    <div className={css.evidence}>
      <Word tiny aria-expanded={open} onClick={onToggle}>
        Earlier
      </Word>{' '}
      <span className="key">E</span>
      {open && data && marks.length === 0 && <span> nothing was given on it before</span>}
      {open && marks.length > 0 && (
        <ul className={css.earlier}>
          {marks.slice(0, EARLIER_SHOWN).map((m) => (
            <li key={m.prompt}>
              {m.prompt}: <b>{m.level}</b>, {m.points} of {m.highest}
              {m.remark && <span className={css.given}> {m.remark}</span>}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

interface BetweenProps {
  name: string;
  lowest: number;
  highest: number;
  onKeep: (points?: number) => void;
}

/** Points that lie between two steps. */
function Between({ name, lowest, highest, onKeep }: BetweenProps) {
  const [text, setText] = useState('');
  const points = Number(text.trim().replace(',', '.'));
  const fits = text.trim() !== '' && points >= lowest && points <= highest;
  return (
    <form
      className={css.between}
      onSubmit={(e) => {
        e.preventDefault();
        if (fits) onKeep(points);
      }}
    >
      <label>
        Points from {lowest} to {highest}{' '}
        <input
          aria-label={`Points of ${name}`}
          aria-invalid={text.trim() !== '' && !fits}
          inputMode="decimal"
          autoFocus
          value={text}
          onChange={(e) => setText(e.target.value)}
          onBlur={() => onKeep(fits ? points : undefined)}
          onKeyDown={(e) => {
            if (e.key === 'Escape') onKeep();
          }}
        />
      </label>
    </form>
  );
}
