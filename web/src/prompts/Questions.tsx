import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { deleteJson, postJson, putJson } from '../api/client';
import { questionsOptions } from '../api/queries';
import type { QuestionView } from '../api/schema';
import { useWrite } from '../api/write';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { When } from '../ui/When';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import css from './Prompt.module.css';

/** What was asked about a prompt; what is answered for all stands here for all. */
export function Questions({ promptId }: { promptId: number }) {
  const { data } = useQuery(questionsOptions(promptId));
  const [question, setQuestion] = useState('');
  const ask = useWrite(() => postJson(`/api/prompts/${promptId}/questions`, { question }), {
    here: true,
    stale: [questionsOptions(promptId).queryKey],
    onDone: () => setQuestion(''),
  });
  if (!data || (data.questions.length === 0 && !data.mayAsk)) return null;
  return (
    <section className="above-6">
      <h2>Questions</h2>
      {data.questions.map((q) => (
        <Asked key={`${q.id} ${q.rev}`} of={q} promptId={promptId} mayAnswer={data.mayAnswer} />
      ))}
      {data.mayAsk && (
        <form
          className={`${css.ask} above-3`}
          onSubmit={(e) => {
            e.preventDefault();
            if (question.trim()) ask.run();
          }}
        >
          <label>
            Something unclear?
            <textarea rows={2} maxLength={2000} value={question} onChange={(e) => setQuestion(e.target.value)} />
          </label>
          <p className="tiny muted above-1 below-2">
            Only your teachers read it, until one of them answers it for all. Your name is not shown with it then.
          </p>
          <Wrong says={ask.problem} />
          <Button type="submit" disabled={ask.busy || !question.trim()}>
            Ask
          </Button>
        </form>
      )}
    </section>
  );
}

interface AskedProps {
  of: QuestionView;
  promptId: number;
  mayAnswer: boolean;
}

function Asked({ of: q, promptId, mayAnswer }: AskedProps) {
  const [open, setOpen] = useState(false);
  const [text, setText] = useState(q.answer ?? '');
  const stale = [questionsOptions(promptId).queryKey, ['today']];
  const answer = useWrite(
    (forAll: boolean) => putJson(`/api/questions/${q.id}/answer`, { rev: q.rev, answer: text, forAll }),
    { here: true, stale },
  );
  const remove = useWrite(() => deleteJson(`/api/questions/${q.id}`), { here: true, stale });
  const answering = mayAnswer && (open || !q.answer);
  return (
    <article className={css.asked}>
      <div className="tiny muted">
        {q.asker ?? 'Somebody of the class'}, <When at={q.askedAt} />
        {q.answer && !q.forAll && ` · answered for ${q.own ? 'you' : q.asker} alone`}
        {!q.answer && q.own && ' · your teachers read it'}
      </div>
      <p className="above-1 below-0">{q.question}</p>
      {q.answer && !answering && (
        <div className={css.answer}>
          <p className="above-0 below-0">{q.answer}</p>
          <div className="tiny muted">{q.answeredBy}</div>
        </div>
      )}
      {answering && (
        <>
          <label className="above-2 block">
            <span className="tiny">Your answer</span>
            <textarea rows={2} maxLength={2000} value={text} onChange={(e) => setText(e.target.value)} />
          </label>
          <p className="row wrap above-2 below-0">
            <Button go disabled={answer.busy || !text.trim()} onClick={() => answer.run(true)}>
              Answer for all
            </Button>
            <Button disabled={answer.busy || !text.trim()} onClick={() => answer.run(false)}>
              Only for {q.asker?.split(' ')[0]}
            </Button>
            {open && <Word onClick={() => setOpen(false)}>{t.cancel}</Word>}
          </p>
          <Wrong says={answer.problem} />
        </>
      )}
      <p className="tiny above-1 below-0">
        {mayAnswer && q.answer && !open && <Word onClick={() => setOpen(true)}>Answer otherwise</Word>}{' '}
        {(mayAnswer || (q.own && !q.answer)) && <Word onClick={() => remove.run()}>Take it away</Word>}
      </p>
      <Wrong says={remove.problem} />
    </article>
  );
}
