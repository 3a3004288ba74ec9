import type { BlogView } from '../api/schema';

/**
 * The blog in which something is written unless its writer chooses another.
 *
 * @param into the blog in which a prompt wants its answers, as the server names it
 */
export const homeFor = (blogs: BlogView[], into?: string): BlogView | undefined =>
  into
    ? blogs.find((b) => b.ref === into)
    : (blogs.find((b) => b.kind === 'ONE_EACH') ?? blogs.find((b) => b.kind === 'SHARED') ?? blogs[0]);
