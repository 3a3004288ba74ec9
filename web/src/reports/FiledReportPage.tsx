import { useQuery } from '@tanstack/react-query';
import { useEffect } from 'react';
import { useParams } from 'react-router';
import { filedReportOptions } from '../api/queries';
import { Asides } from '../asides/Asides';
import { useClass } from '../session/useClass';
import { CleanHtml } from '../ui/CleanHtml';
import { Loading, Trouble } from '../ui/Trouble';
import { When } from '../ui/When';
import { OtherWeeks, seenName } from './OwnReports';
import css from './Report.module.css';

/** A report as its student was told it, with a box to answer. */
export function FiledReportPage() {
  const { id, name } = useClass();
  const { report = '' } = useParams();
  const { data, error, refetch } = useQuery(filedReportOptions(report));
  useEffect(() => {
    if (data?.own) localStorage.setItem(seenName(data), 'yes');
  }, [data]);
  return (
    <div className="page plain">
      <title>{`${data?.title ?? 'A report'} · ${name}`}</title>
      <main>
        {error && <Trouble error={error} onRetry={() => refetch()} />}
        {!data && !error && <Loading lines={9} />}
        {data && (
          <>
            <p className="row wrap above-0 below-0 off-paper">
              <span className="muted">
                Sent <When at={data.at} />
              </span>
              <a className="word push" href={`/api/week-reports/${data.id}.pdf`} target="_blank" rel="noopener">
                As PDF, to save or print
              </a>
            </p>
            <article className={css.sheet} aria-label={data.title}>
              <CleanHtml html={data.html} />
            </article>
            <section className={`${css.under} off-paper`} aria-label="Answers">
              <Asides
                at={`/api/classes/${id}/${data.own ? 'words' : `people/${data.studentId}/words`}`}
                heading={data.own ? 'Answer your teachers' : 'Private words'}
                label={data.own ? 'Only your teachers read it' : 'Only this student and the staff read it'}
                verb="Send it"
              />
              <OtherWeeks classId={id} student={data.own ? undefined : data.studentId} now={data.id} />
            </section>
          </>
        )}
      </main>
    </div>
  );
}
