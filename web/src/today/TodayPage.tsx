import { useQuery } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { askingOptions, meOptions, quietOptions, scheduledOptions, todayOptions } from '../api/queries';
import { useClass } from '../session/useClass';
import { t } from '../texts/en';
import { Loading, Trouble } from '../ui/Trouble';
import { say, When } from '../ui/When';
import css from './Today.module.css';

/** What needs a person now, one line each. */
export function TodayPage() {
  const { id, manages } = useClass();
  const { data, error, refetch } = useQuery({ ...todayOptions(id), refetchInterval: 30_000 });
  const { data: asking = [] } = useQuery(askingOptions(id));
  const { data: scheduled = [] } = useQuery(scheduledOptions(id));
  const quiet = useQuery(quietOptions(id)).data?.students ?? [];
  const { data: me } = useQuery(meOptions);
  const others = me?.classes.some((c) => c.id !== id && c.staff);
  const at = `/classes/${id}`;
  if (error)
    return (
      <div className="page plain">
        <Trouble error={error} onRetry={() => refetch()} />
      </div>
    );
  if (!data)
    return (
      <div className="page plain">
        <Loading lines={7} />
      </div>
    );
  const lines: ReactNode[] = [];
  const { approve } = data;
  if (data.students === 0)
    lines.push(
      <Line
        key="s"
        n={0}
        says="students are in this class yet"
        more="Paste their names or upload the list from the school office."
        to={`${at}/people/roster`}
        verb="Enrol students"
      />,
    );
  else if (!data.hasPrompts)
    lines.push(
      <Line
        key="p"
        n={0}
        says="prompts are set"
        more="A prompt says what to write, until when, and how it is marked."
        to={`${at}/prompts/new`}
        verb="Set a prompt"
      />,
    );
  if (approve && manages) {
    const parts = [
      approve.posts && t.count(approve.posts, 'post', 'posts'),
      approve.comments && t.count(approve.comments, 'comment', 'comments'),
      approve.reviews && t.count(approve.reviews, 'review', 'reviews'),
      approve.outside && `${approve.outside} from outside`,
      approve.headers && t.count(approve.headers, 'picture for a blog', 'pictures for blogs'),
    ].filter(Boolean);
    lines.push(
      <Line
        key="a"
        n={approve.total}
        says={`${approve.total === 1 ? 'waits' : 'wait'} for approval, the longest since ${say(approve.oldest)}`}
        more={`${parts.join(', ')}${approve.held ? `; ${approve.held} ${approve.held === 1 ? 'is' : 'are'} held` : ''}`}
        to={`${at}/approve`}
        verb="Approve"
      />,
    );
  }
  asking.forEach((a) =>
    lines.push(
      <Line
        key={`h${a.postId}`}
        n={1}
        says={`student asks for help: ${a.author}`}
        more={
          <>
            {a.title || 'A text without a title yet'}, asked <When at={a.at} />
          </>
        }
        to={`${at}/posts/${a.postId}/margin`}
        verb="Look"
      />,
    ),
  );
  data.questions.forEach((q) =>
    lines.push(
      <Line
        key={`q${q.promptId}`}
        n={q.questions}
        says={q.questions === 1 ? 'question waits for an answer' : 'questions wait for an answer'}
        more={`under ${q.title}`}
        to={`${at}/prompt/${q.promptId}`}
        verb="Answer"
      />,
    ),
  );
  data.mark.forEach((m) =>
    lines.push(
      <Line
        key={m.promptId}
        n={m.count || m.toTakeOver}
        says={`${(m.count || m.toTakeOver) === 1 ? 'is' : 'are'} ${m.count > 0 ? 'ready to mark' : 'marked by an assistant, to be taken over'}`}
        more={
          <>
            {m.title}, was due <When at={m.due} />
            {m.count > 0 && m.toTakeOver > 0 ? `; ${m.toTakeOver} marked by an assistant, to be taken over` : ''}
            {m.missing ? `; ${m.missing} handed in nothing` : ''}
          </>
        }
        to={`${at}/mark/${m.promptId}`}
        verb="Mark"
      />,
    ),
  );
  data.readAgain.forEach((r) =>
    lines.push(
      <Line
        key={`r${r.promptId}`}
        n={r.count}
        says={`${r.count === 1 ? 'waits' : 'wait'} for your second reading`}
        more={r.title}
        to={`${at}/mark`}
        verb="Read"
      />,
    ),
  );
  if (quiet.length > 0)
    lines.push(
      <Line
        key="q"
        n={quiet.length}
        says={`${quiet.length === 1 ? 'student has' : 'students have'} handed in nothing for two weeks`}
        more={quiet.join(', ')}
        to={`${at}/weeks?group=%20quiet`}
        verb="See their weeks"
      />,
    );
  if (data.unanswered > 0)
    lines.push(
      <Line
        key="u"
        n={data.unanswered}
        says={`${data.unanswered === 1 ? 'post' : 'posts'} of this week ${data.unanswered === 1 ? 'has' : 'have'} no comment from a classmate`}
        to={`${at}/porch?weeks=${data.weekIndex}&unanswered=yes`}
        verb="See them"
      />,
    );
  if (manages && data.askedNames.length > 0)
    lines.push(
      <Line
        key="n"
        n={data.askedNames.length}
        says={data.askedNames.length === 1 ? 'name is to be looked at' : 'names are to be looked at'}
        more={
          <>
            {data.askedNames.join(', ')}: came in by themselves under a name that could be taken for somebody else’s.
            The class sees “A new student” until you have looked.
          </>
        }
        to={`${at}/people`}
        verb="Look"
      />,
    );
  if (data.byWord.length > 0)
    lines.push(
      <Line
        key="c"
        n={data.byWord.length}
        says={`came in by the class word this week`}
        more={data.byWord.map((b) => b.name).join(', ')}
        to={`${at}/people`}
        verb="See them"
      />,
    );
  data.enrolled.forEach((e) =>
    lines.push(
      <Line
        key={`e${e.name}${e.className}`}
        n={1}
        says={`student of yours is in another class now: ${e.name}`}
        more={
          <>
            {e.by} enrolled {e.name} in {e.className} <When at={e.at} />. A new pass phrase comes from the school keeper
            from now on.
          </>
        }
        to={`${at}/people?find=${encodeURIComponent(e.name)}`}
        verb="See"
      />,
    ),
  );
  data.askedSources.forEach((s) =>
    lines.push(
      <Line
        key={`a${s.title}`}
        n={1}
        says={`outside blog waits for a yes: ${s.title}`}
        more={`${s.person} writes there. Nothing comes in before you have said yes.`}
        to={`${at}/sources`}
        verb="Look"
      />,
    ),
  );
  data.faltering.forEach((f) =>
    lines.push(
      <Line
        key={`f${f.id}`}
        n={1}
        says={`outside blog falters: ${f.title}`}
        more={
          <>
            {f.error}
            {f.lastEntry ? (
              <>
                {' '}
                The last entry came <When at={f.lastEntry} />.
              </>
            ) : null}
          </>
        }
        to={`${at}/sources`}
        verb="Look"
      />,
    ),
  );
  return (
    <div className="page plain">
      <title>{`Today · ${data.className}`}</title>
      <main>
        <h1 className="text">
          {data.day.charAt(0) + data.day.slice(1).toLowerCase()}
          {data.week ? `, week ${data.week}` : ''}
        </h1>
        <p className="muted above-1 below-0">
          {lines.length
            ? `What needs a person now in ${data.className}:`
            : `Nothing in ${data.className} needs you now.`}
        </p>
        {lines.length > 0 && <div className={css.lines}>{lines}</div>}
        {scheduled.length > 0 && (
          <section className="above-5" aria-label="Goes up later">
            <h2 className="smaller">Goes up by itself</h2>
            {scheduled.map((s) => (
              <p className="above-2 below-0" key={s.id}>
                <Link className="word" to={`${at}/posts/${s.id}`}>
                  {s.title}
                </Link>
                <span className="muted">
                  {' '}
                  · {s.author} · <When at={s.at} />
                </span>
              </p>
            ))}
          </section>
        )}
        <p className="tiny muted above-5">
          {data.elsewhere.length > 0
            ? `Something waits in ${data.elsewhere.join(' and ')} too. `
            : others
              ? 'Nothing waits in your other classes. '
              : ''}
          <Link className="word tiny" to={`${at}/porch`}>
            What is on the Porch
          </Link>
        </p>
      </main>
    </div>
  );
}

function Line({ n, says, more, to, verb }: { n: number; says: string; more?: ReactNode; to: string; verb: string }) {
  return (
    <div className={css.line}>
      <b>{n === 0 ? 'No' : n}</b>
      <div>
        {says}
        {more && <p>{more}</p>}
      </div>
      <Link className="word" to={to}>
        {verb}
      </Link>
    </div>
  );
}
