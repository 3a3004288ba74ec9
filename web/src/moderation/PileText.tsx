import { useMemo } from 'react';
import type { PileItem, Stretch } from '../api/schema';
import { Reading } from '../reading/Reading';
import { t } from '../texts/en';
import { CleanHtml } from '../ui/CleanHtml';
import { laidOpen, markChanges, markLine } from '../ui/markText';
import css from './Approve.module.css';

/** All of a text that goes up if it is approved: the words, or what is new in them, and what goes with them. */
export function PileText({ item }: { item: PileItem }) {
  const { changes, holds } = item;
  const whole = useMemo(
    () => (changes ? markChanges(changes.words, holds) : laidOpen(item.html, holds)),
    [changes, holds, item.html],
  );
  const shown = useMemo(() => (changes?.shown ? laidOpen(changes.shown, holds) : ''), [changes, holds]);
  const files = item.subject === 'post' ? item.id : undefined;
  const { category, tags, works } = item.besides;
  return (
    <>
      {item.title &&
        (changes?.title.length ? <CleanHtml as="h2" html={markLine(changes.title, holds)} /> : <h2>{item.title}</h2>)}
      {item.besides.word && (
        <p className={css.said}>
          <span className="tiny muted">Said with it:</span> {item.besides.word}
        </p>
      )}
      <div className={css.text}>
        <Reading html={whole} postId={files} />
      </div>
      {shown && (
        <div className={css.text}>
          <p className="tiny muted above-4">New in it, or not as before:</p>
          <Reading html={shown} postId={files} />
        </div>
      )}
      {!!changes?.gone && (
        <p className="tiny muted">
          {t.count(changes.gone, 'picture, file or link', 'pictures, files or links')} of before{' '}
          {changes.gone === 1 ? 'is' : 'are'} gone or changed.
        </p>
      )}
      {(category || tags.length > 0 || works.length > 0 || !!changes?.besides.length) && (
        <div className={css.besides}>
          {category && (
            <p>
              Category: <Besides text={category} changed={changes?.besides} />
            </p>
          )}
          {tags.length > 0 && (
            <p>
              Tags:{' '}
              {tags.map((tag, i) => (
                <span key={tag}>
                  {i > 0 && ', '}
                  <Besides text={tag} changed={changes?.besides} />
                </span>
              ))}
            </p>
          )}
          {works.length > 0 && (
            <ul aria-label="Sources">
              {works.map((work) => (
                <li key={work}>
                  <Besides text={work} changed={changes?.besides} />
                </li>
              ))}
            </ul>
          )}
          {changes?.besides.some((b) => b.change === 'REMOVED') && (
            <p>
              Gone:{' '}
              {changes.besides
                .filter((b) => b.change === 'REMOVED')
                .map((b) => (
                  <del key={b.text}>{b.text}</del>
                ))}
            </p>
          )}
        </div>
      )}
    </>
  );
}

function Besides({ text, changed }: { text: string; changed?: Stretch[] }) {
  return changed?.some((b) => b.change === 'ADDED' && b.text === text) ? <ins>{text}</ins> : text;
}
