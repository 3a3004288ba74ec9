import { Menu, Modal, useMantineColorScheme } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useEffect, useState } from 'react';
import { Link, NavLink, useLocation } from 'react-router';
import { deleteJson } from '../api/client';
import { newsForMeOptions } from '../api/queries';
import type { Me, Place } from '../api/schema';
import { useWrite } from '../api/write';
import { giveBackEyes, useBorrowEyes, useEyes } from '../session/eyes';
import { type SeenPlace, seenThrough } from '../session/useClass';
import { keptWords, takeKeptWords } from '../session/useKeptName';
import { t } from '../texts/en';
import { Button } from '../ui/Button';
import { Logo } from '../ui/Logo';
import css from './Band.module.css';

const BringInDialog = lazy(() => import('../feeds/BringInDialog').then((m) => ({ default: m.BringInDialog })));
const SearchDialog = lazy(() => import('../search/SearchDialog').then((m) => ({ default: m.SearchDialog })));

interface PlaceLink {
  to: string;
  word: string;
  count?: number;
  /** Further beginnings of addresses that belong to the place. */
  also?: string[];
}

function placesOf(c: SeenPlace): PlaceLink[] {
  const at = `/classes/${c.id}`;
  const p = t.places;
  if (c.role === 'MODERATOR') return [{ to: `${at}/approve`, word: p.approve, count: c.waits }];
  if (c.role === 'GUEST' || c.role === 'STRANGER') return [{ to: `${at}/porch`, word: p.porch }];
  if (c.role === 'STUDENT')
    return [
      { to: `${at}/porch`, word: p.porch },
      { to: `${at}/write`, word: p.write },
      { to: `${at}/my-writing`, word: p.writing, count: c.returned },
      { to: `${at}/feedback`, word: p.feedback },
    ];
  return [
    { to: `${at}/today`, word: p.today },
    { to: `${at}/porch`, word: p.porch },
    ...(c.manages
      ? [
          { to: `${at}/write`, word: p.write },
          { to: `${at}/approve`, word: p.approve, count: c.waits },
        ]
      : []),
    { to: `${at}/mark`, word: p.mark, count: c.toMark },
    {
      to: `${at}/people`,
      word: p.class,
      also: ['groups', 'blogs', 'prompts', 'scores', 'sources', 'rules', 'term'].map((x) => `${at}/${x}`),
    },
  ];
}

/** The pages and acts that can be gone to by their names, besides the places. */
function pagesOf(c: SeenPlace, me: Me): PlaceLink[] {
  const at = `/classes/${c.id}`;
  const of = (words: Record<string, string>) =>
    Object.entries(words).map(([word, to]) => ({ word, to: to.startsWith('/') ? to : `${at}/${to}` }));
  const own = of({
    'Blogs of the class': 'blog',
    'News since last time': '/news',
    'My subscriptions': '/subscriptions',
    'My account': '/account',
  });
  if (c.role === 'MODERATOR' || c.role === 'STRANGER') return [];
  if (!c.manages) return own;
  return [
    ...of({
      'Enrol students from a roster': 'people/roster',
      'Class word and invitations': 'people/ways',
      Groups: 'groups',
      'Blogs and their settings': 'blogs',
      'Make a new blog': 'blogs/new',
      Prompts: 'prompts',
      'Set a prompt': 'prompts/new',
      'The weeks': 'weeks',
      'Who answers whom': 'weeks/who-answers-whom',
      Scores: 'scores',
      'The class’s picture': 'scores/picture',
      'Bring marks in': 'scores/bring-in',
      'The drawer of the class': 'drawer',
      'Outside blogs': 'sources',
      Rules: 'rules',
      'Term and names': 'term',
      'What was decided': 'decisions',
    }),
    ...own,
    ...(me.teacher ? of({ 'Make a new class': '/classes/new' }) : []),
    ...(me.keeper ? of({ 'The school': '/school', 'Classes by weeks': '/school/weeks' }) : []),
  ];
}

/** The first page of a place in a class, for each kind of member. */
export function homeOf(c: Place): string {
  return `/classes/${c.id}/${c.role === 'MODERATOR' ? 'approve' : c.staff ? 'today' : 'porch'}`;
}

/** The one band at the top: where one is, where one can go, who one is. */
export function Band({ me, current }: { me: Me; current?: Place }) {
  const eyes = useEyes();
  const borrow = useBorrowEyes();
  const { pathname } = useLocation();
  const { colorScheme, setColorScheme } = useMantineColorScheme();
  const { data: news } = useQuery({ ...newsForMeOptions, enabled: !eyes });
  const [searching, setSearching] = useState(false);
  const [bringing, setBringing] = useState<string | null>(null);
  const [leaving, setLeaving] = useState(false);
  useEffect(() => {
    const hear = (e: KeyboardEvent) => {
      if (e.key.toLowerCase() !== 'k' || !(e.ctrlKey || e.metaKey)) return;
      e.preventDefault();
      setSearching(true);
    };
    window.addEventListener('keydown', hear);
    return () => window.removeEventListener('keydown', hear);
  }, []);
  const signOut = useWrite((_take: boolean) => deleteJson('/api/session'), {
    onDone: (_answer, take) => {
      if (take) takeKeptWords(me.id);
      giveBackEyes();
      // The page begins anew, so that nothing of what was read stays in it.
      window.location.assign('/sign-in');
    },
  });
  const seen = current && eyes?.classId === current.id ? seenThrough(current, eyes.role) : current;
  return (
    <>
      <header className={css.band}>
        <Link to="/" className={css.mark} aria-label={t.name}>
          <Logo />
          <span className={css.name}>{t.name}</span>
        </Link>
        <Menu position="bottom-start" width={290}>
          <Menu.Target>
            <button
              type="button"
              className={css.class}
              aria-label={
                current
                  ? `${[current.name, current.level].filter(Boolean).join(' ')}: change the class`
                  : 'Classes: choose one'
              }
            >
              <span>
                {current ? current.name : 'Classes'} {current?.level && <small>{current.level}</small>}
              </span>
              <svg width="10" height="6" aria-hidden="true">
                <path d="M1 1l4 4 4-4" fill="none" stroke="currentColor" strokeWidth="1.6" />
              </svg>
            </button>
          </Menu.Target>
          <Menu.Dropdown>
            {me.classes.map((c) => (
              <Menu.Item
                key={c.id}
                component={Link}
                to={homeOf(c)}
                rightSection={c.waits > 0 ? <span className={css.n}>{c.waits}</span> : null}
              >
                {c.name}
              </Menu.Item>
            ))}
            {me.teacher && (
              <Menu.Item component={Link} to="/classes/new">
                New class
              </Menu.Item>
            )}
            {me.keeper && (
              <Menu.Item component={Link} to="/school">
                The school
              </Menu.Item>
            )}
          </Menu.Dropdown>
        </Menu>
        {seen && (
          <nav className={css.places} aria-label="Places">
            {placesOf(seen).map((p) => (
              <NavLink
                key={p.to}
                to={p.to}
                aria-current={p.also?.some((a) => pathname.startsWith(a)) ? 'page' : undefined}
                className={undefined}
              >
                {p.word}
                {p.count ? <span className={css.n}>{p.count}</span> : null}
              </NavLink>
            ))}
          </nav>
        )}
        <div className={css.right}>
          {!eyes && news && seen?.role !== 'MODERATOR' && (
            <Link to="/news" className={css.news}>
              News{' '}
              {news.fresh > 0 && (
                <span className={css.n}>
                  {news.fresh}
                  <span className="away"> not seen</span>
                </span>
              )}
            </Link>
          )}
          {seen && seen.role !== 'MODERATOR' && seen.role !== 'STRANGER' && (
            <button type="button" className={css.who} onClick={() => setSearching(true)} aria-label="Search (Ctrl K)">
              <span className={css.word}>Search </span>
              <span className="key">Ctrl K</span>
            </button>
          )}
          <Menu position="bottom-end" width={240}>
            <Menu.Target>
              <button type="button" className={css.who} aria-label={`${me.name}: your menu`}>
                {me.name}
              </button>
            </Menu.Target>
            <Menu.Dropdown>
              {current?.staff && !eyes && (
                <>
                  <Menu.Item
                    onClick={() =>
                      borrow(
                        { classId: current.id, className: current.name, of: 'guest', name: 'a guest', role: 'GUEST' },
                        pathname,
                      )
                    }
                  >
                    See this page as a guest
                  </Menu.Item>
                  <Menu.Item
                    onClick={() =>
                      borrow(
                        {
                          classId: current.id,
                          className: current.name,
                          of: 'stranger',
                          name: 'a stranger',
                          role: 'STRANGER',
                        },
                        pathname,
                      )
                    }
                  >
                    See this page as a stranger
                  </Menu.Item>
                </>
              )}
              {seen?.role !== 'MODERATOR' && (
                <Menu.Item component={Link} to="/subscriptions">
                  My subscriptions
                </Menu.Item>
              )}
              <Menu.Item component={Link} to="/account">
                My account
              </Menu.Item>
              <Menu.Item onClick={() => setColorScheme(colorScheme === 'dark' ? 'light' : 'dark')}>
                {colorScheme === 'dark' ? 'Day porch' : 'Night porch'}
              </Menu.Item>
              <Menu.Item onClick={() => (keptWords(me.id) > 0 ? setLeaving(true) : signOut.run(false))}>
                Sign out
              </Menu.Item>
            </Menu.Dropdown>
          </Menu>
        </div>
      </header>
      {leaving && (
        <Modal opened onClose={() => setLeaving(false)} title="Words that were not sent">
          <p>
            Words that you typed and did not send lie in this browser ({t.count(keptWords(me.id), 'place', 'places')}).
            Left here, they are there when you sign in on this computer again; on a computer that others use, take them
            away.
          </p>
          <p className={css.leaving}>
            <Button go onClick={() => signOut.run(true)}>
              Take them away and sign out
            </Button>{' '}
            <Button onClick={() => signOut.run(false)}>Leave them and sign out</Button>
          </p>
        </Modal>
      )}
      {searching && seen && (
        <Suspense fallback={null}>
          <SearchDialog
            classId={seen.id}
            places={[...placesOf(seen), ...(eyes ? [] : pagesOf(seen, me))]}
            onBringIn={!eyes && (seen.manages || seen.role === 'STUDENT') ? setBringing : undefined}
            onClose={() => setSearching(false)}
          />
        </Suspense>
      )}
      {bringing !== null && seen && (
        <Suspense fallback={null}>
          <BringInDialog classId={seen.id} manages={seen.manages} pasted={bringing} onClose={() => setBringing(null)} />
        </Suspense>
      )}
      {eyes && (
        <div className={css.eyes} role="status">
          <span>
            You see <b>{eyes.className}</b> as <b>{eyes.name}</b> sees it. You can only read.
          </span>
          <Button onClick={() => borrow(null, `/classes/${eyes.classId}/people`)}>Be yourself again</Button>
        </div>
      )}
    </>
  );
}
