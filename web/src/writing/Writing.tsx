import { useQueryClient } from '@tanstack/react-query';
import { EditorContent, useEditor } from '@tiptap/react';
import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { ApiProblem, postFile, postJson } from '../api/client';
import { draftOptions } from '../api/queries';
import type { Draft, FileView, Uploaded } from '../api/schema';
import { useWrite } from '../api/write';
import { AskForHelp, OwnMargin } from '../margin/OwnMargin';
import { PostArticle } from '../reading/PostArticle';
import { useClass } from '../session/useClass';
import { useKeptName } from '../session/useKeptName';
import { Button } from '../ui/Button';
import { StateBoard } from '../ui/StateBoard';
import { say } from '../ui/When';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import { DraftCheck } from './DraftCheck';
import { extensionsFor } from './extensions';
import { carriedFile, MOST_PICTURES, pastedAs, picturesIn, plainPaste } from './paste';
import { putIn } from './putIn';
import { putVideo } from './putVideo';
import { Tools } from './Tools';
import { type Kept, keptHere, type Saving, type Typed, typedOf, useDraft } from './useDraft';
import { VersionsDialog } from './VersionsDialog';
import css from './Write.module.css';

/** What to begin with: what the server has, or what this browser kept because the server had not taken it. */
function beginning(draft: Draft, name: string): { typed: Kept; restored: boolean } {
  const kept = keptHere(name);
  return kept
    ? { typed: kept, restored: true }
    : { typed: { ...typedOf(draft), rev: draft.beside.rev }, restored: false };
}

/** The editor of a post with what stands beside it. `onDone` is for whoever came from another place and goes back there. */
export function Writing({ draft, onDone }: { draft: Draft; onDone?: () => void }) {
  const { id: classId } = useClass();
  const navigate = useNavigate();
  const client = useQueryClient();
  const name = useKeptName(`draft-${draft.id}`);
  const [begin] = useState(() => beginning(draft, name));
  const { beside, saving, change, save, keepMine, takeTheirs, goOnWith, rev } = useDraft(draft, begin.typed, name);
  const [shown, setShown] = useState<Typed>(begin.typed);
  const [preview, setPreview] = useState(false);
  const [problem, setProblem] = useState('');
  // Why it could not be handed in; it is said where one has pressed.
  const [looking, setLooking] = useState(false);
  const [word, setWord] = useState(draft.handInWord ?? '');
  const [publishAt, setPublishAt] = useState(draft.publishAt ?? '');
  const uploading = useRef(0);
  const update = (part: Partial<Typed>) => {
    setShown((before) => ({ ...before, ...part }));
    change(part);
  };
  const editor = useEditor({
    extensions: extensionsFor(draft.tools),
    content: begin.typed.html,
    editorProps: {
      attributes: { class: 'reading', role: 'textbox', 'aria-label': 'Your text', 'aria-multiline': 'true' },
      transformPastedHTML: (html) => {
        void takeAlong(picturesIn(html));
        return plainPaste(html);
      },
      // A word processor offers a picture of the text besides the text itself; the text is what is meant.
      handlePaste: (_view, event) =>
        !event.clipboardData?.getData('text/html') &&
        (takeFiles([...(event.clipboardData?.files ?? [])]) ||
          takeLine(event.clipboardData?.getData('text/plain') ?? '')),
      handleDrop: (_view, event) => takeFiles([...((event as DragEvent).dataTransfer?.files ?? [])]),
    },
    onCreate: () => {
      if (begin.restored) update({});
    },
    onUpdate: ({ editor: e }) => update({ html: e.getHTML() }),
  });
  const takeFiles = (files: File[]): boolean => {
    if (files.length === 0) return false;
    void upload(files);
    return true;
  };
  /** A line that was pasted and is the address of a picture, or the code of a player. */
  const takeLine = (text: string): boolean => {
    const pasted = pastedAs(text);
    if (!pasted || !editor || !draft.tools.includes(pasted.type === 'picture' ? 'PICTURE' : 'VIDEO')) return false;
    if (pasted.type === 'video') void putVideo(editor, pasted.address);
    else void takeAlong([pasted.address]);
    return true;
  };
  /** Pictures that came along with what was pasted: an own copy of each is kept, or it is said why not. */
  const takeAlong = async (addresses: string[]) => {
    if (addresses.length === 0) return;
    const failed: string[] = [];
    for (const address of addresses.slice(0, MOST_PICTURES)) {
      uploading.current++;
      const carried = address.startsWith('data:');
      try {
        const at = `/api/posts/${draft.id}/pictures`;
        const taken = carried
          ? await postFile<Uploaded>(at, carriedFile(address))
          : await postJson<Uploaded>(`${at}/from-address`, { address });
        if (editor) putIn(editor, 'picture', { src: taken.address });
      } catch (e) {
        failed.push(
          `${carried ? 'A picture' : `The picture from ${new URL(address).host}`} was not taken along: ${e instanceof ApiProblem ? e.message : 'it could not be read.'}`,
        );
      } finally {
        uploading.current--;
      }
    }
    if (addresses.length > MOST_PICTURES) failed.push(`Only the first ${MOST_PICTURES} pictures were taken along.`);
    setProblem([...new Set(failed)].join(' '));
  };
  const upload = async (files: File[]) => {
    setProblem('');
    for (const file of files) {
      uploading.current++;
      try {
        if (file.type.startsWith('image/')) {
          const { address } = await postFile<Uploaded>(`/api/posts/${draft.id}/pictures`, file);
          if (editor) putIn(editor, 'picture', { src: address });
        } else {
          const { address, name, kind } = await postFile<FileView>(`/api/posts/${draft.id}/files`, file);
          if (editor) putIn(editor, 'file', { href: address, name, kind: kind.toLowerCase() });
          void client.invalidateQueries({ queryKey: ['files', draft.id] });
        }
      } catch (e) {
        setProblem(`${file.name}: ${e instanceof ApiProblem ? e.message : 'It could not be added.'}`);
      } finally {
        uploading.current--;
      }
    }
  };
  const handIn = useWrite(
    async () => {
      if (!(await save())) return false;
      await postJson(`/api/posts/${draft.id}/hand-in`, {
        rev: rev.current,
        publishAt: publishAt || undefined,
        word: word || undefined,
      });
      return true;
    },
    {
      here: true,
      onDone: async (handedIn) => {
        if (!handedIn) return;
        client.removeQueries({ queryKey: ['draft', draft.id] });
        await client.invalidateQueries();
        if (onDone) onDone();
        else navigate(`/classes/${classId}/posts/${draft.id}`);
      },
    },
  );
  const replaceWith = (theirs: Typed, on: number) => {
    takeTheirs(theirs, on);
    setShown(theirs);
    editor?.commands.setContent(theirs.html, { emitUpdate: false });
  };
  const broughtBack = async () => {
    const fresh = await client.fetchQuery({ ...draftOptions(draft.id), staleTime: 0 });
    goOnWith(fresh);
    setShown(typedOf(fresh));
    editor?.commands.setContent(fresh.html, { emitUpdate: false });
    setLooking(false);
  };
  const staffMends = !draft.own && beside.state === 'WAITING';

  return (
    <div className={css.page}>
      <title>{`${shown.title || 'Write'} · Vast Porch`}</title>
      <main>
        <div className={css.top}>
          <span className="muted">
            {draft.blog.title}
            {draft.own ? '' : `, you are changing a student's text`}
          </span>
          <span className={css.saved} role="status">
            <StateBoard state={beside.state} />
            &ensp;
            <Saved saving={saving} state={beside.state} />
          </span>
        </div>
        {saving.type === 'elsewhere' && (
          <div className="tell wrong below-3" role="alert">
            {saving.why} <Word onClick={() => keepMine(saving.rev)}>Go on with this one</Word> ·{' '}
            <Word onClick={() => replaceWith(saving.theirs, saving.rev)}>Take the other one</Word>
            <details className="above-2">
              <summary>Show the other one</summary>
              <PostArticle title={saving.theirs.title} html={saving.theirs.html} tags={saving.theirs.tags} />
            </details>
          </div>
        )}
        {problem && (
          <div className="tell wrong below-3" role="alert">
            {problem}
          </div>
        )}
        {preview ? (
          <div className={css.sheet}>
            <PostArticle
              postId={draft.id}
              title={shown.title}
              html={shown.html}
              tags={shown.tags}
              references={beside.references}
            />
          </div>
        ) : (
          <div className={css.sheet}>
            {editor && <Tools editor={editor} tools={draft.tools} onFiles={upload} />}
            <textarea
              className={css.title}
              rows={1}
              aria-label="Title"
              placeholder="Title"
              value={shown.title}
              aria-invalid={saving.type === 'refused' && saving.field === 'title'}
              onChange={(e) => update({ title: e.target.value.replace(/\n/g, ' ') })}
              onKeyDown={(e) => {
                if (e.key === 'Enter') {
                  e.preventDefault();
                  editor?.commands.focus('start');
                }
              }}
            />
            {saving.type === 'refused' && (
              <p className="tell wrong above-2 below-2" role="alert">
                {saving.why}
              </p>
            )}
            <EditorContent editor={editor} className={css.editor} />
          </div>
        )}
      </main>
      {draft.own && (
        <OwnMargin draft={draft} saved={async () => ((await save()) ? rev.current : null)} onChanged={broughtBack} />
      )}
      <aside className={`sill ${css.beside}`} aria-label="Beside the text">
        <DraftCheck
          draft={draft}
          beside={beside}
          typed={shown}
          onChange={update}
          publishAt={publishAt}
          onPublishAt={setPublishAt}
        />
        {draft.own && <AskForHelp postId={draft.id} />}
        {draft.own && draft.prompt && (
          <details className="above-3" open={!!word}>
            <summary className="tiny points muted">Say something to your teacher with it</summary>
            <textarea
              className={`${css.word} above-2`}
              rows={3}
              maxLength={1000}
              aria-label="What your teacher reads beside it"
              value={word}
              onChange={(e) => setWord(e.target.value)}
            />
          </details>
        )}
        {!staffMends && (
          <Button
            className="full above-4 big"
            go
            mid
            onClick={() => handIn.run()}
            disabled={handIn.busy || !beside.ready}
          >
            {beside.goesToApproval ? 'Hand in' : publishAt ? 'Publish at that time' : 'Publish'}
          </Button>
        )}
        <Wrong says={handIn.problem} />
        {staffMends && (
          <Button
            className="full above-4 big"
            go
            mid
            onClick={async () => {
              if (!(await save())) return;
              if (onDone) onDone();
              else navigate(`/classes/${classId}/approve`);
            }}
          >
            {onDone ? 'Back to the pile' : 'Back to Approve'}
          </Button>
        )}
        <div className={css.pair}>
          <Button
            mid
            aria-pressed={preview}
            onClick={() => {
              setPreview(!preview);
              window.scrollTo({ top: 0 });
            }}
          >
            {preview ? 'Go on writing' : 'Preview'}
          </Button>
          <Button
            mid
            onClick={async () => {
              await save();
              setLooking(true);
            }}
          >
            Versions
          </Button>
        </div>
        {looking && <VersionsDialog postId={draft.id} onClose={() => setLooking(false)} onBroughtBack={broughtBack} />}
      </aside>
    </div>
  );
}

function Saved({ saving, state }: { saving: Saving; state: string }) {
  switch (saving.type) {
    case 'saved':
      return (
        <>
          {state === 'DRAFT' ? 'Draft, saved' : 'Saved'}{' '}
          {Date.now() - new Date(saving.at).getTime() < 60_000 ? 'a moment ago' : say(saving.at)}
        </>
      );
    case 'saving':
      return <>Saving</>;
    case 'kept-here':
      return <>Kept in this browser. {saving.why} It is saved as soon as that works again.</>;
    case 'refused':
      return <>Not saved yet; kept in this browser</>;
    case 'elsewhere':
      return <>Not saved: choose one of the two</>;
  }
}
