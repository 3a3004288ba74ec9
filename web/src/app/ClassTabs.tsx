import { NavLink, Outlet } from 'react-router';
import { useClass } from '../session/useClass';
import { NotThere } from '../ui/Trouble';
import css from './Band.module.css';

/** The pages about the class itself, for its staff. */
export function ClassTabs() {
  const { id, staff, manages } = useClass();
  if (!staff) return <NotThere />;
  const at = `/classes/${id}`;
  const pages = [
    ['people', 'People'],
    ...(manages ? [['groups', 'Groups']] : []),
    ['blogs', 'Blogs'],
    ['prompts', 'Prompts'],
    ['weeks', 'Weeks'],
    ['scores', 'Scores'],
    ['drawer', 'Drawer'],
    ['sources', 'Outside blogs'],
    ...(manages
      ? [
          ['rules', 'Rules'],
          ['term', 'Term and names'],
        ]
      : []),
  ];
  return (
    <div className="of-class">
      <nav className={css.subs} aria-label="The class">
        {pages.map(([path, word]) => (
          <NavLink key={path} to={`${at}/${path}`}>
            {word}
          </NavLink>
        ))}
      </nav>
      <Outlet />
    </div>
  );
}
