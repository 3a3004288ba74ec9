import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { ApiProblem, postFile, putJson } from '../api/client';
import { drawerOptions } from '../api/queries';
import type { DrawerItem } from '../api/schema';
import { useWrite } from '../api/write';
import { useClass } from '../session/useClass';
import { Button } from '../ui/Button';
import { Loading, Trouble } from '../ui/Trouble';
import { Word } from '../ui/Word';
import { Wrong } from '../ui/Wrong';
import css from './Drawer.module.css';
import { DrawerFront } from './DrawerFront';

/** Pictures and files that the class finds beside the editor. */
export function DrawerPage() {
  const { id, name } = useClass();
  const drawer = useQuery(drawerOptions(id));
  const file = useRef<HTMLInputElement>(null);
  const [out, setOut] = useState<DrawerItem | null>(null);
  const [wrong, setWrong] = useState('');
  const stale = [['drawer', id]];
  const at = `/api/classes/${id}/drawer`;
  const add = useWrite(
    async (files: File[]) => {
      const failed: string[] = [];
      for (const one of files)
        try {
          await postFile(`${at}/${one.type.startsWith('image/') ? 'pictures' : 'files'}?offered=true`, one);
        } catch (e) {
          failed.push(`${one.name}: ${e instanceof ApiProblem ? e.message : 'It could not be put in.'}`);
        }
      return failed.join(' ');
    },
    { here: true, stale, onDone: setWrong },
  );
  const change = useWrite(
    ({ item, ...to }: { item: DrawerItem; name?: string; offered?: boolean }) =>
      putJson(`${at}/${item.id}`, { name: to.name ?? item.name, offered: to.offered ?? item.offered }),
    { here: true, stale, onDone: (_, { item, offered }) => setOut(offered === false ? item : null) },
  );
  const put = (files: FileList | null) => {
    if (files?.length) add.run([...files]);
  };
  return (
    <div className="page plain">
      <title>{`Drawer · ${name}`}</title>
      <main
        onDragOver={(e) => e.preventDefault()}
        onDrop={(e) => {
          e.preventDefault();
          put(e.dataTransfer.files);
        }}
      >
        <h1>Drawer</h1>
        <p className="muted above-2 below-4 measure-l">
          Pictures, sounds, videos and documents for everybody in this class to use. They find them under “Drawer” where
          they write; what somebody takes is theirs from then on.
        </p>
        <p className="row middle below-4">
          <Button go disabled={add.busy} onClick={() => file.current?.click()}>
            Put something in
          </Button>
          <span className="tiny muted">{add.busy ? 'It is being put in…' : 'or drop it anywhere on this page'}</span>
          <input
            ref={file}
            type="file"
            hidden
            multiple
            aria-label="Pictures and files for the drawer"
            onChange={(e) => {
              put(e.target.files);
              e.target.value = '';
            }}
          />
        </p>
        <Wrong says={wrong || add.problem || change.problem} />
        {out && (
          <p className="tell" role="status">
            {out.name || 'The picture'} is out of the drawer; where it stands in a text it stays.{' '}
            <Word onClick={() => change.run({ item: out, offered: true })}>Put it back</Word>
          </p>
        )}
        {drawer.isError && <Trouble error={drawer.error} onRetry={() => drawer.refetch()} />}
        {drawer.isPending && <Loading lines={4} />}
        {drawer.data?.length === 0 && <p className="muted">Nothing lies in it yet.</p>}
        <ul className={css.items}>
          {drawer.data?.map((item) => (
            <li key={item.id} className={css.item}>
              <DrawerFront item={item} isNamed={false} />
              <span className={css.acts}>
                <input
                  aria-label={`Name of ${item.name || 'the picture'}`}
                  className="slip"
                  defaultValue={item.name}
                  maxLength={200}
                  placeholder="What is it?"
                  onBlur={(e) => {
                    if (e.target.value.trim() !== item.name) change.run({ item, name: e.target.value });
                  }}
                />
                <Word tiny disabled={change.busy} onClick={() => change.run({ item, offered: false })}>
                  Take it out
                </Word>
              </span>
            </li>
          ))}
        </ul>
      </main>
    </div>
  );
}
