import { NavLink, Outlet } from 'react-router';
import css from './Band.module.css';
import { manages, useClass } from './useClass';

/** The pages about the class itself. */
export function ClassTabs() {
  const { id, role } = useClass();
  const at = `/classes/${id}`;
  const pages = [['people', 'People'], ...(manages(role) ? [['groups', 'Groups']] : []), ['blogs', 'Blogs'], ['prompts', 'Prompts'], ['sources', 'Outside blogs'], ...(manages(role) ? [['rules', 'Rules'], ['term', 'Term and names']] : [])];
  return (
    <div className="of-class">
      <nav className={css.subs} aria-label="The class">
        {pages.map(([path, word]) => <NavLink key={path} to={`${at}/${path}`}>{word}</NavLink>)}
      </nav>
      <Outlet />
    </div>
  );
}
