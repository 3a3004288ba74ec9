import { useQueryClient } from '@tanstack/react-query';
import { type RefObject, useCallback, useEffect, useLayoutEffect, useRef, useState } from 'react';
import { deleteJson, postJson, putJson } from '../api/client';
import { paperOptions } from '../api/queries';
import type { Paper, PaperNote, PaperPost } from '../api/schema';
import { useWrite } from '../api/write';
import { chosenIn, mark, type Passage, placeOf } from '../margin/passage';
import { Reading } from '../reading/Reading';
import { useKeptName } from '../session/useKeptName';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { When } from '../ui/When';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import css from './NotedText.module.css';

interface NotedTextProps {
  html: string;
  postId: number;
  notes: PaperNote[];
  /** What else stands beside the text, at the height of a passage. */
  own?: { at: Passage | null; content: React.ReactNode };
  /** What may be done with a note. */
  acts?: (note: PaperNote) => React.ReactNode;
  text?: RefObject<HTMLDivElement | null>;
}

/** A text with what was written beside its words: in the margin where there is room, under it where there is none. */
export function NotedText({ html, postId, notes, own, acts, text }: NotedTextProps) {
  const here = useRef<HTMLDivElement>(null);
  const words = text ?? here;
  const column = useRef<HTMLDivElement>(null);
  const [lost, setLost] = useState<number[]>([]);
  const place = useCallback(() => {
    const root = words.current;
    if (!root || !column.current) return;
    const from = root.getBoundingClientRect().top;
    let free = 0;
    const gone: number[] = [];
    const wanted = [...column.current.children].map((child) => {
      const { quote, nth, id } = (child as HTMLElement).dataset;
      const range = quote ? placeOf(root, { quote, nth: Number(nth) }) : null;
      if (!range && id) gone.push(Number(id));
      return { child: child as HTMLElement, top: range ? range.getBoundingClientRect().top - from : Infinity };
    });
    wanted.sort((a, b) => a.top - b.top);
    for (const { child, top } of wanted) {
      const at = top === Infinity ? free : Math.max(top, free);
      child.style.top = `${at}px`;
      free = at + child.offsetHeight + 10;
    }
    // What follows begins below the last note.
    const isBeside = getComputedStyle(column.current).position === 'absolute';
    if (root.parentElement) root.parentElement.style.minHeight = isBeside ? `${free}px` : '';
    setLost((before) => (before.join() === gone.join() ? before : gone));
  }, [words]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: other notes or another text stand elsewhere
  useLayoutEffect(place, [place, html, notes, own]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another text is drawn anew
  useEffect(() => {
    const root = words.current;
    if (!root) return;
    const ranges = notes.map((n) => placeOf(root, n)).filter((r) => r !== null);
    const unmark = mark('noted', ranges);
    // Pictures and documents come later and push the words down.
    const grown = new ResizeObserver(place);
    grown.observe(root);
    return () => {
      unmark();
      grown.disconnect();
    };
  }, [html, notes, place, words]);
  const point = (note: PaperNote) => {
    const range = words.current && placeOf(words.current, note);
    return range ? mark('noted-now', [range]) : undefined;
  };
  return (
    <div className={css.noted}>
      <div ref={words}>
        <Reading html={html} postId={postId} />
      </div>
      <div ref={column} className={css.beside}>
        {notes.map((note) => (
          <Note key={note.id} note={note} lost={lost.includes(note.id)} point={point} acts={acts?.(note)} />
        ))}
        {own?.content && (
          <div data-quote={own.at?.quote} data-nth={own.at?.nth}>
            {own.content}
          </div>
        )}
      </div>
    </div>
  );
}

interface NoteProps {
  note: PaperNote;
  lost: boolean;
  point: (note: PaperNote) => (() => void) | undefined;
  acts: React.ReactNode;
}

function Note({ note, lost, point, acts }: NoteProps) {
  const unmark = useRef<(() => void) | undefined>(undefined);
  useEffect(() => () => unmark.current?.(), []);
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: pointing shows the words again that stand in the note
    <div
      className={css.note}
      data-id={note.id}
      data-quote={note.quote}
      data-nth={note.nth}
      onMouseEnter={() => {
        unmark.current = point(note);
      }}
      onMouseLeave={() => unmark.current?.()}
    >
      <p className={lost ? css.lost : css.quote}>{note.quote}</p>
      {lost && <p className="tiny muted above-0 below-1">These words stood in an earlier version.</p>}
      <p className="above-0 below-0">{note.text}</p>
      <p className="tiny muted above-1 below-0">
        {note.by} · <When at={note.at} />
        {acts}
      </p>
    </div>
  );
}

/** A note that is being written; the one that it changes, if there is one. */
type Writing = Passage & { text: string; note?: PaperNote };

/** What was being written when the page was left. */
function remembered(kept: string): Writing | null {
  try {
    return JSON.parse(localStorage.getItem(kept) ?? 'null');
  } catch {
    return null;
  }
}

interface WriteBesideProps {
  paper: Paper;
  post: PaperPost;
  /** What the page's key for it does, while words are chosen here. */
  beside: RefObject<(() => void) | null>;
}

/** A post of a paper, for its marker to write beside its words. */
export function WriteBeside({ paper, post, beside }: WriteBesideProps) {
  const text = useRef<HTMLDivElement>(null);
  const client = useQueryClient();
  const kept = useKeptName(`paper-note-${paper.promptId}-${post.postId}`);
  const [selected, setSelected] = useState<ReturnType<typeof chosenIn>>(null);
  const [writing, setWriting] = useState(() => remembered(kept));
  const type = (now: Writing | null) => {
    setWriting(now);
    if (now?.text) localStorage.setItem(kept, JSON.stringify(now));
    else localStorage.removeItem(kept);
  };
  const setNotes = (change: (notes: PaperNote[]) => PaperNote[]) =>
    client.setQueryData(
      paperOptions(paper.promptId, paper.studentId).queryKey,
      (now) =>
        now && {
          ...now,
          posts: now.posts.map((p) => (p.postId === post.postId ? { ...p, notes: change(p.notes) } : p)),
        },
    );
  const keep = useWrite(
    (wanted: Writing) =>
      wanted.note
        ? putJson<PaperNote>(`/api/paper-notes/${wanted.note.id}`, { was: wanted.note.text, text: wanted.text })
        : postJson<PaperNote>(`/api/prompts/${paper.promptId}/marking/${paper.studentId}/notes`, {
            post: post.postId,
            version: post.version,
            quote: wanted.quote,
            nth: wanted.nth,
            text: wanted.text,
          }),
    {
      here: true,
      onDone: (note) => {
        setNotes((notes) => [...notes.filter((n) => n.id !== note.id), note]);
        type(null);
      },
    },
  );
  const remove = useWrite((note: PaperNote) => deleteJson(`/api/paper-notes/${note.id}`), {
    here: true,
    onDone: (_nothing, note) => setNotes((notes) => notes.filter((n) => n.id !== note.id)),
  });
  useEffect(() => {
    const look = () => setSelected(chosenIn(text.current));
    document.addEventListener('selectionchange', look);
    return () => document.removeEventListener('selectionchange', look);
  }, []);
  const chosen = selected && selected !== 'ACROSS' && !writing ? selected : null;
  const begin = () => {
    if (!chosen) return;
    keep.forget();
    type({ ...chosen, text: '' });
  };
  useEffect(() => {
    if (!chosen) return;
    beside.current = begin;
    return () => {
      beside.current = null;
    };
  });
  useEffect(() => {
    const range = writing && text.current && placeOf(text.current, writing);
    return range ? mark('chosen', [range]) : undefined;
  }, [writing]);
  return (
    <NotedText
      html={post.html}
      postId={post.postId}
      notes={post.notes.filter((n) => n.id !== writing?.note?.id)}
      text={text}
      own={{
        at: writing ?? chosen,
        content: writing ? (
          <form
            className={css.form}
            onSubmit={(e) => {
              e.preventDefault();
              if (!keep.busy && writing.text.trim()) keep.run(writing);
            }}
          >
            <label>
              Beside “{short(writing.quote)}”
              <textarea
                rows={3}
                autoFocus
                maxLength={4000}
                value={writing.text}
                onChange={(e) => type({ ...writing, text: e.target.value })}
                onKeyDown={(e) => {
                  if (e.key === 'Enter' && !e.shiftKey) {
                    e.preventDefault();
                    e.currentTarget.form?.requestSubmit();
                  } else if (e.key === 'Escape') type(null);
                }}
              />
            </label>
            <Wrong says={keep.problem} />
            <p className="row above-2 below-0">
              <Button type="submit" disabled={!writing.text.trim()}>
                Put it there
              </Button>
              <Word tiny onClick={() => type(null)}>
                {t.cancel}
              </Word>
            </p>
          </form>
        ) : (
          chosen && (
            <Button className={css.offer} onMouseDown={(e) => e.preventDefault()} onClick={begin}>
              Write beside it <span className="key">B</span>
            </Button>
          )
        ),
      }}
      acts={(note) =>
        note.mine && (
          <>
            {' · '}
            <Word tiny onClick={() => type({ quote: note.quote, nth: note.nth, text: note.text, note })}>
              Change
            </Word>
            {' · '}
            <Word tiny disabled={remove.busy} onClick={() => remove.run(note)}>
              Take away
            </Word>
            <Wrong says={remove.problem} />
          </>
        )
      }
    />
  );
}

const short = (words: string) => (words.length > 40 ? `${words.slice(0, 40).trimEnd()}…` : words);
