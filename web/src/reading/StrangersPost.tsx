import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { postOptions } from '../api/queries';
import { Comments } from '../comments/Comments';
import { SignInPage } from '../session/SignIn';
import { Logo } from '../ui/Logo';
import { Loading } from '../ui/Trouble';
import { When } from '../ui/When';
import { Word } from '../ui/Word';
import { PostArticle } from './PostArticle';

/** A post for somebody who is not signed in: shown if it is for anyone; else the way leads through sign-in. */
export function StrangersPost({ postId, onSignedIn }: { postId: number; onSignedIn: () => void }) {
  const post = useQuery(postOptions(postId));
  const [signingIn, setSigningIn] = useState(false);
  // Once the way has led through sign-in it does not lead back while somebody types there.
  if (post.isError && !signingIn) setSigningIn(true);
  if (post.isError || signingIn) return <SignInPage onDone={onSignedIn} />;
  return (
    <div className="page plain">
      <main>
        <p className="row middle above-0 below-5">
          <Logo />
          <span className="muted">Vast Porch</span>
          <Word className="push" onClick={() => setSigningIn(true)}>
            Sign in
          </Word>
        </p>
        {post.isPending && <Loading lines={8} />}
        {post.data && (
          <>
            <title>{`${post.data.title} · Vast Porch`}</title>
            <PostArticle
              postId={postId}
              title={post.data.title}
              html={post.data.html}
              tags={post.data.tags}
              above={
                <div className="muted">
                  {post.data.author}
                  {post.data.publishedAt && (
                    <>
                      {' '}
                      · <When at={post.data.publishedAt} />
                    </>
                  )}
                </div>
              }
            />
            <Comments post={post.data} visitor />
          </>
        )}
      </main>
    </div>
  );
}
