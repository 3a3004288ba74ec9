import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { Link, useParams } from 'react-router';
import { postJson } from '../api/client';
import { marginOptions } from '../api/queries';
import { useWrite } from '../api/write';
import { Reading } from '../reading/Reading';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Loading, Trouble } from '../ui/Trouble';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import css from './Margin.module.css';
import { MarginNote } from './MarginNote';
import { chosenIn, type Passage } from './passage';

/** A student's text for staff to note in the margin, or to propose other words. */
export function MarginPage() {
  const { id: classId } = useClass();
  const id = Number(useParams().postId);
  const margin = useQuery(marginOptions(id));
  const text = useRef<HTMLDivElement>(null);
  const [selected, setSelected] = useState<ReturnType<typeof chosenIn>>(null);
  const [chosen, setChosen] = useState<Passage | null>(null);
  const [remark, setRemark] = useState('');
  const [other, setOther] = useState<string | null>(null);
  const add = useWrite(
    () => postJson(`/api/posts/${id}/margin`, { ...chosen, remark, replacement: other ?? undefined }),
    { here: true, stale: [['margin', id]], onDone: () => close() },
  );
  // By touch or by keyboard a selection grows bit by bit: one says when it is right. A mouse has said so when its button goes up.
  useEffect(() => {
    const look = () => setSelected(chosenIn(text.current));
    document.addEventListener('selectionchange', look);
    return () => document.removeEventListener('selectionchange', look);
  }, []);
  // The words stay marked while one writes about them elsewhere on the page.
  useEffect(() => () => void CSS.highlights?.delete('chosen'), []);
  if (margin.isError)
    return (
      <div className="page plain">
        <Trouble error={margin.error} onRetry={() => margin.refetch()} />
      </div>
    );
  if (!margin.data)
    return (
      <div className="page">
        <Loading lines={8} />
      </div>
    );
  const m = margin.data;
  const choose = () => {
    const now = chosenIn(text.current);
    if (!now || now === 'ACROSS') return;
    setChosen(now);
    setOther(null);
    CSS.highlights?.set('chosen', new Highlight(document.getSelection()!.getRangeAt(0).cloneRange()));
  };
  const close = () => {
    CSS.highlights?.delete('chosen');
    setChosen(null);
    setRemark('');
    setOther(null);
    add.forget();
  };
  return (
    <div className="page inside-6">
      <title>{`In the margin of ${m.title || 'a draft'}`}</title>
      <main>
        <p className="muted above-0 below-0">
          {m.author}
          {m.asked ? ' asks for help with this text' : ''} ·{' '}
          <Link className="word" to={`/classes/${classId}/posts/${id}`}>
            The post
          </Link>
        </p>
        <h1 className="text above-1">{m.title || 'Without a title yet'}</h1>
        <div
          ref={text}
          onPointerUp={(e) => {
            if (e.pointerType === 'mouse') choose();
          }}
          onKeyDown={(e) => {
            if (e.key === 'Enter' && selected) {
              e.preventDefault();
              choose();
            }
          }}
          tabIndex={0}
          role="group"
          aria-label="The text; select words in it to write beside them"
        >
          <Reading html={m.html} postId={id} />
        </div>
        {m.mayNote && selected && !chosen && (
          <div className={css.selected}>
            {selected === 'ACROSS' ? (
              <span>A note stands beside words of one paragraph. Select fewer.</span>
            ) : (
              <Button go onMouseDown={(e) => e.preventDefault()} onClick={choose}>
                Write beside “
                {selected.quote.length > 40 ? `${selected.quote.slice(0, 40).trimEnd()}…` : selected.quote}”
              </Button>
            )}
          </div>
        )}
      </main>
      <aside className="sill">
        <h2>In the margin</h2>
        {m.mayNote && !chosen && (
          <p className="tiny muted above-0 below-3">
            Select words in the text to write beside them, or to propose others. {m.author} decides what to take over.
          </p>
        )}
        {chosen && (
          <form
            className={css.form}
            onSubmit={(e) => {
              e.preventDefault();
              add.run();
            }}
          >
            <p className={css.quote}>{chosen.quote}</p>
            <label>
              Note
              <textarea rows={2} autoFocus value={remark} onChange={(e) => setRemark(e.target.value)} />
            </label>
            {other === null ? (
              <Word tiny onClick={() => setOther(chosen.quote)}>
                Propose other words
              </Word>
            ) : (
              <label>
                Instead of these words
                <textarea rows={2} value={other} onChange={(e) => setOther(e.target.value)} />
              </label>
            )}
            <Wrong says={add.problem} />
            <p className="row above-3 below-0">
              <Button go type="submit" disabled={!remark.trim() && other === null}>
                Put it there
              </Button>
              <Word onClick={close}>{t.cancel}</Word>
            </p>
          </form>
        )}
        {m.notes.map((n) => (
          <MarginNote key={n.id} note={n} />
        ))}
        {m.notes.length === 0 && !chosen && <p className="tiny muted">No note yet.</p>}
      </aside>
    </div>
  );
}
