import { useQuery } from '@tanstack/react-query';
import { Link, useParams, useSearchParams } from 'react-router';
import { reportOptions, reportPath, reportTemplatesOptions } from '../api/queries';
import { useClass } from '../session/useClass';
import { CleanHtml } from '../ui/CleanHtml';
import { Loading, Trouble } from '../ui/Trouble';
import css from './Report.module.css';

/** What a report says of one student and one week, as it will be on paper. */
export function ReportPage() {
  const { id, name } = useClass();
  const { monday = '', student = '' } = useParams();
  const [params, setParams] = useSearchParams();
  const { data: templates } = useQuery(reportTemplatesOptions(id));
  const template = params.get('template') ?? templates?.[0]?.key ?? 'letter';
  const { data, error, refetch } = useQuery({
    ...reportOptions(id, monday, student, template),
    placeholderData: (before) => before,
  });
  return (
    <div className="page plain">
      <title>{`${data?.title ?? 'A report'} · ${name}`}</title>
      <main>
        <div className="row wrap off-paper">
          <label className="muted">
            As{' '}
            <select
              className="pick"
              aria-label="Template"
              value={template}
              onChange={(e) => setParams({ template: e.target.value }, { replace: true })}
            >
              {templates?.map((of) => (
                <option key={of.key} value={of.key}>
                  {of.name}
                </option>
              ))}
            </select>
          </label>
          <span className="push less row wrap">
            <Link className="word" to={`/classes/${id}/weeks`}>
              The weeks
            </Link>
            <a className="word" href={reportPath(id, monday, student, template, '.pdf')} target="_blank" rel="noopener">
              As PDF, to save or print
            </a>
          </span>
        </div>
        {error && <Trouble error={error} onRetry={() => refetch()} />}
        {!data && !error && <Loading lines={9} />}
        {data && (
          <>
            <article className={css.sheet} aria-label={data.title}>
              <CleanHtml html={data.html} />
            </article>
            <p className="tiny muted above-3 off-paper">
              It says only what {data.student} may read too: marks that are shown, posts that are up. Nobody has been
              sent this.
            </p>
          </>
        )}
      </main>
    </div>
  );
}
