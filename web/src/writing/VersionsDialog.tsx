import { Modal } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { postJson } from '../api/client';
import { versionOptions, versionsOptions } from '../api/queries';
import { useWrite } from '../api/write';
import { PostArticle } from '../reading/PostArticle';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Chip } from '../ui/Chip';
import { CleanHtml } from '../ui/CleanHtml';
import { markChanges } from '../ui/markText';
import { Loading, Trouble } from '../ui/Trouble';
import { When } from '../ui/When';
import { Wrong } from '../ui/Wrong';
import css from './Versions.module.css';

interface VersionsDialogProps {
  postId: number;
  onClose: () => void;
  /** Called once an earlier version has become the newest; left out where nothing may be changed. */
  onBroughtBack?: () => Promise<void>;
}

/** The versions of a post: each can be read, compared with what is there now, and brought back. */
export function VersionsDialog({ postId, onClose, onBroughtBack }: VersionsDialogProps) {
  const versions = useQuery(versionsOptions(postId));
  const [wanted, setWanted] = useState<number | null>(null);
  const [compare, setCompare] = useState(true);
  const list = versions.data ?? [];
  const no = wanted ?? (list.find((v) => !v.newest) ?? list[0])?.no;
  const one = useQuery({ ...versionOptions(postId, no ?? 0), enabled: no !== undefined });
  const isNewest = list.find((v) => v.no === no)?.newest ?? true;
  const bringBack = useWrite(() => postJson(`/api/posts/${postId}/versions/${no}/bring-back`, { rev: one.data?.rev }), {
    here: true,
    onDone: onBroughtBack,
  });
  return (
    <Modal opened onClose={onClose} title="Versions of this post" size="xl">
      {versions.isPending && <Loading />}
      {versions.isError && <Trouble error={versions.error} onRetry={() => versions.refetch()} />}
      {list.length === 1 && (
        <p className="muted above-0 below-0">
          There is one version so far. A new one is kept every ten minutes of writing, and before much is deleted.
        </p>
      )}
      {list.length > 1 && (
        <div className={css.two}>
          <div className={css.list} role="group" aria-label="Versions">
            {list.map((v) => (
              <button type="button" key={v.no} aria-pressed={v.no === no} onClick={() => setWanted(v.no)}>
                <b>{v.newest ? 'Now' : `Version ${v.no}`}</b>
                {v.live ? ', published' : ''}
                <span>
                  <When at={v.at} />
                  {v.by ? ` · ${v.by}` : ''} · {t.count(v.words, 'word', 'words')}
                </span>
              </button>
            ))}
          </div>
          <div className={css.one}>
            {one.isPending && <Loading />}
            {one.data && (
              <>
                {!isNewest && (
                  <div className={css.acts}>
                    <Chip aria-pressed={compare} onClick={() => setCompare(true)}>
                      What is different now
                    </Chip>
                    <Chip aria-pressed={!compare} onClick={() => setCompare(false)}>
                      The version itself
                    </Chip>
                    {onBroughtBack && (
                      <Button className="push" onClick={() => bringBack.run()}>
                        Bring it back
                      </Button>
                    )}
                  </div>
                )}
                <Wrong says={bringBack.problem} />
                {compare && !isNewest ? (
                  <CleanHtml className="reading" html={markChanges(one.data.changes, [])} />
                ) : (
                  <PostArticle
                    postId={postId}
                    title={one.data.title}
                    html={one.data.html}
                    tags={one.data.tags}
                    references={one.data.references}
                  />
                )}
              </>
            )}
          </div>
        </div>
      )}
    </Modal>
  );
}
