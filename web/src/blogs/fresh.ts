import type { BlogForm } from '../api/schema';

/** A blog for each student as it begins: for the class, open at once, in linen, with no rules. */
export const FRESH: BlogForm = {
  kind: 'ONE_EACH',
  title: 'Log of {name}',
  intro: '',
  about: '',
  widest: 'MY_CLASS',
  commenters: 'CLASS',
  settings: {
    look: 'LINEN',
    lookLocked: false,
    newestFirst: true,
    perPage: 20,
    grouping: 'NONE',
    posts: 'AS_CLASS',
    comments: 'AS_CLASS',
    rules: {
      edit: { minutes: -1 },
      delete: { minutes: -1 },
      deleteComments: true,
      mostPictures: 40,
      mostMegabytes: 40,
      fewestWords: 0,
      mostWords: 0,
      mostPosts: 0,
      per: 'WEEK',
      comments: { afterDays: 0, at: '' },
    },
  },
};
