import { queryOptions } from '@tanstack/react-query';
import { ApiProblem, getJson, postJson, withParams } from './client';
import type {
  Account,
  AddressView,
  AgreementView,
  AllowanceView,
  AnsweringView,
  Approval,
  AsideList,
  AskedOfMe,
  Asking,
  BeforeLeaving,
  BlogForm,
  BlogLine,
  BlogPage,
  BlogView,
  BundlesView,
  Category,
  ClassMail,
  ClassView,
  CommentView,
  Current,
  DirectoryLine,
  Draft,
  DrawerItem,
  DueLine,
  EarlierMark,
  Editable,
  EntryLine,
  ExampleAsked,
  ExamplePosts,
  FeedbackView,
  FeedReader,
  FiledReport,
  FileView,
  Findable,
  FrontPage,
  GivenLine,
  Gone,
  InvitationLine,
  MailOffer,
  Margin,
  Me,
  MemberLine,
  Mine,
  News,
  NewsView,
  NotedPost,
  Notice,
  OneVersion,
  OutsideAnswer,
  OutsideLine,
  OutsideTimeView,
  OwnPost,
  OwnSourcesRule,
  OwnViewPage,
  OwnWeeks,
  Pair,
  Paper,
  PeerReviewPage,
  PersonPage,
  PhraseView,
  Picture,
  Pile,
  PlannedRelease,
  PlanView,
  Porch,
  PostView,
  PromptAnswered,
  PromptView,
  QuestionList,
  Quiet,
  Rail,
  ReceivedReviews,
  ReportName,
  ReturnNote,
  ReviewToGive,
  RoomView,
  RoundInClass,
  RoundView,
  Rubrics,
  SamenessView,
  SameOf,
  ScheduledPost,
  SchoolWeeks,
  ScoreLine,
  SearchResult,
  SecondPage,
  SecondReadingsView,
  Sheet,
  Shelf,
  SourceView,
  StaffLine,
  Strip,
  TemplateName,
  ToAnswer,
  Today,
  UsualWaitView,
  VersionView,
  WarmUpPage,
  WarmUpPapers,
  WeekOfStudent,
  WeekReport,
  WeekReports,
  WeeksView,
  WordOfClass,
} from './schema';

/**
 * Who is signed in, with what waits; asked again now and then so that the counts are true. Null for nobody: that is an answer and no error: a question that failed is asked again and again, and each time
 * the page would begin anew under whoever types on it. Who was signed in stays on the page when the session ends.
 */
export const meOptions = queryOptions({
  queryKey: ['me'],
  queryFn: async ({ client, queryKey, signal }): Promise<Me | null> => {
    try {
      return await getJson<Me>('/api/me', signal);
    } catch (e) {
      if (e instanceof ApiProblem && e.status === 401 && !client.getQueryData(queryKey)) return null;
      throw e;
    }
  },
  refetchInterval: ({ state }) => (state.data ? 20_000 : false),
  retry: false,
});

export const classOptions = (id: number) =>
  queryOptions({
    queryKey: ['class', id],
    queryFn: ({ signal }) => getJson<ClassView>(`/api/classes/${id}`, signal),
    staleTime: 60_000,
  });

export const todayOptions = (id: number) =>
  queryOptions({
    queryKey: ['today', id],
    queryFn: ({ signal }) => getJson<Today>(`/api/classes/${id}/today`, signal),
  });

export interface PorchFilter {
  /** The place of a term in the order of the class. */
  term?: number;
  fromWeek?: number;
  toWeek?: number;
  month?: string;
  /** The number of a person's place in the class. */
  place?: number;
  blog?: number;
  oldestFirst?: boolean;
  most?: number;
  group?: number;
  prompt?: number;
  tag?: string;
  unanswered?: boolean;
  category?: number;
  /** The number of an outside blog. */
  source?: number;
  span?: 'TODAY' | 'WEEK' | 'MONTH' | 'YEAR';
  announcements?: boolean;
}

export const porchPage = (id: number, filter: PorchFilter, after?: string, signal?: AbortSignal) =>
  getJson<Porch>(withParams(`/api/classes/${id}/porch`, { ...filter, after }), signal);

export const railOptions = (id: number, of: { place?: number; blog?: number; term?: number } = {}) =>
  queryOptions({
    queryKey: ['rail', id, of],
    queryFn: ({ signal }) => getJson<Rail>(withParams(`/api/classes/${id}/rail`, of), signal),
  });

export const blogPageOptions = (id: number, address: string) =>
  queryOptions({
    queryKey: ['blog', id, address],
    queryFn: ({ signal }) => getJson<BlogPage>(`/api/classes/${id}/blogs/at/${encodeURIComponent(address)}`, signal),
    retry: false,
  });

export const ownRuleOptions = (id: number) =>
  queryOptions({
    queryKey: ['own-rule', id],
    queryFn: ({ signal }) => getJson<OwnSourcesRule>(`/api/classes/${id}/sources/rule`, signal),
  });

export const gonePostsOptions = (id: number) =>
  queryOptions({
    queryKey: ['gone-posts', id],
    queryFn: ({ signal }) => getJson<Gone>(`/api/classes/${id}/gone-posts`, signal),
  });

export const outsideDirectoryOptions = (id: number) =>
  queryOptions({
    queryKey: ['outside-directory', id],
    queryFn: ({ signal }) => getJson<OutsideLine[]>(`/api/classes/${id}/outside-directory`, signal),
  });

export const feedReadersOptions = (id: number) =>
  queryOptions({
    queryKey: ['feed-readers', id],
    queryFn: ({ signal }) => getJson<FeedReader[]>(`/api/classes/${id}/feed-readers`, signal),
  });

export const directoryOptions = (id: number) =>
  queryOptions({
    queryKey: ['directory', id],
    queryFn: ({ signal }) => getJson<DirectoryLine[]>(`/api/classes/${id}/directory`, signal),
  });

export const shelfOptions = (blog: number) =>
  queryOptions({
    queryKey: ['shelf', blog],
    queryFn: ({ signal }) => getJson<Shelf>(`/api/blogs/${blog}/shelf`, signal),
  });

/** A new blog as its form begins, one of each kind. */
export const freshOptions = (classId: number) =>
  queryOptions({
    queryKey: ['fresh-blogs', classId],
    queryFn: ({ signal }) => getJson<BlogForm[]>(`/api/classes/${classId}/blogs/fresh`, signal),
    staleTime: Number.POSITIVE_INFINITY,
  });

export const setupOptions = (ref: string) =>
  queryOptions({
    queryKey: ['setup', ref],
    queryFn: ({ signal }) => getJson<Current>(`/api/blog-setups/${ref}`, signal),
    refetchOnWindowFocus: false,
  });

export const wordOptions = (id: number) =>
  queryOptions({
    queryKey: ['word', id],
    queryFn: ({ signal }) => getJson<WordOfClass>(`/api/classes/${id}/word`, signal),
  });

export const invitationsOptions = (id: number) =>
  queryOptions({
    queryKey: ['invitations', id],
    queryFn: ({ signal }) => getJson<InvitationLine[]>(`/api/classes/${id}/invitations`, signal),
    refetchInterval: (query) => (query.state.data?.some((i) => i.mail === 'waits') ? 1_000 : 8_000),
  });

export const leavingOptions = (id: number, person: number) =>
  queryOptions({
    queryKey: ['leaving', id, person],
    queryFn: ({ signal }) => getJson<BeforeLeaving>(`/api/classes/${id}/people/${person}/leaving`, signal),
    gcTime: 0,
  });

export const accountOptions = queryOptions({
  queryKey: ['account'],
  queryFn: ({ signal }) => getJson<Account>('/api/account', signal),
});

export const schoolPeoplePage = (begins: string, after?: string, signal?: AbortSignal) =>
  getJson<PersonPage>(withParams('/api/school/people', { begins, after }), signal);

export const newsOptions = (id: number) =>
  queryOptions({
    queryKey: ['news', id],
    queryFn: ({ signal }) => getJson<NewsView[]>(`/api/classes/${id}/news`, signal),
    staleTime: 60_000,
  });

export const postOptions = (id: number) =>
  queryOptions({
    queryKey: ['post', id],
    queryFn: ({ signal }) => getJson<PostView>(`/api/posts/${id}`, signal),
    retry: false,
  });

export const commentsOptions = (id: number) =>
  queryOptions({
    queryKey: ['comments', id],
    queryFn: ({ signal }) => getJson<CommentView[]>(`/api/posts/${id}/comments`, signal),
  });

export const draftOptions = (id: number) =>
  queryOptions({
    queryKey: ['draft', id],
    queryFn: ({ signal }) => getJson<Draft>(`/api/posts/${id}/draft`, signal),
    retry: false,
    refetchOnWindowFocus: false,
    gcTime: 0,
  });

export interface SearchFor {
  q: string;
  kind?: string;
  class?: number;
  after?: string;
  most?: number;
}

export const searchPage = (wanted: SearchFor, signal?: AbortSignal) =>
  getJson<SearchResult>(withParams('/api/search', { ...wanted }), signal);

/** What is new for the one who is signed in; asked again now and then for the count in the band. */
export const newsForMeOptions = queryOptions({
  queryKey: ['news-for-me'],
  queryFn: ({ signal }) => getJson<News>('/api/news', signal),
  refetchInterval: 60_000,
  staleTime: 15_000,
  retry: false,
});

/** The classes that ask whether one wants mail. */
export const mailOffersOptions = queryOptions({
  queryKey: ['mail-offers'],
  queryFn: ({ signal }) => getJson<MailOffer[]>('/api/subscriptions/offers', signal),
  staleTime: 60_000,
});
export const classMailOptions = (id: number) =>
  queryOptions({
    queryKey: ['class-mail', id],
    queryFn: ({ signal }) => getJson<ClassMail>(`/api/classes/${id}/mail`, signal),
  });
export const subscriptionsOptions = queryOptions({
  queryKey: ['subscriptions'],
  queryFn: ({ signal }) => getJson<Mine>('/api/subscriptions', signal),
  staleTime: 30_000,
});

export const marginOptions = (id: number) =>
  queryOptions({
    queryKey: ['margin', id],
    queryFn: ({ signal }) => getJson<Margin>(`/api/posts/${id}/margin`, signal),
    refetchInterval: 30_000,
  });

export const askingOptions = (id: number) =>
  queryOptions({
    queryKey: ['asking', id],
    queryFn: ({ signal }) => getJson<Asking[]>(`/api/classes/${id}/asking`, signal),
  });

export const asidesOptions = (at: string) =>
  queryOptions({ queryKey: ['asides', at], queryFn: ({ signal }) => getJson<AsideList>(at, signal), retry: false });

/** What the staff of a class and this student say to each other, about nothing that is written. */
export const wordsToMeOptions = (classId: number) => asidesOptions(`/api/classes/${classId}/words`);

export const givenOptions = (prompt: number) =>
  queryOptions({
    queryKey: ['given', prompt],
    queryFn: ({ signal }) => getJson<GivenLine[]>(`/api/prompts/${prompt}/comments-given`, signal),
  });

export const filesOptions = (id: number) =>
  queryOptions({
    queryKey: ['files', id],
    queryFn: ({ signal }) => getJson<FileView[]>(`/api/posts/${id}/files`, signal),
    staleTime: 30_000,
  });

export const versionsOptions = (id: number) =>
  queryOptions({
    queryKey: ['versions', id],
    queryFn: ({ signal }) => getJson<VersionView[]>(`/api/posts/${id}/versions`, signal),
    gcTime: 0,
  });

export const versionOptions = (id: number, no: number) =>
  queryOptions({
    queryKey: ['versions', id, no],
    queryFn: ({ signal }) => getJson<OneVersion>(`/api/posts/${id}/versions/${no}`, signal),
    gcTime: 0,
  });

export const categoriesOptions = (id: number) =>
  queryOptions({
    queryKey: ['categories', id],
    queryFn: ({ signal }) => getJson<Category[]>(`/api/classes/${id}/categories`, signal),
  });

export const scheduledOptions = (id: number) =>
  queryOptions({
    queryKey: ['scheduled', id],
    queryFn: ({ signal }) => getJson<ScheduledPost[]>(`/api/classes/${id}/scheduled`, signal),
  });

export const ownPostsOptions = (id: number) =>
  queryOptions({
    queryKey: ['own-posts', id],
    queryFn: ({ signal }) => getJson<OwnPost[]>(`/api/classes/${id}/own-posts`, signal),
  });

export const writableOptions = (id: number) =>
  queryOptions({
    queryKey: ['writable', id],
    queryFn: ({ signal }) => getJson<BlogView[]>(`/api/classes/${id}/blogs/mine`, signal),
  });

export const blogsOptions = (id: number) =>
  queryOptions({
    queryKey: ['blogs', id],
    queryFn: ({ signal }) => getJson<BlogLine[]>(`/api/classes/${id}/blogs`, signal),
  });

export const outsideAnswersOptions = (prompt: number) =>
  queryOptions({
    queryKey: ['outside-answers', prompt],
    queryFn: ({ signal }) => getJson<OutsideAnswer[]>(`/api/prompts/${prompt}/outside-posts`, signal),
  });
export const outsideTimeOptions = (id: number) =>
  queryOptions({
    queryKey: ['outside-time', id],
    queryFn: ({ signal }) => getJson<OutsideTimeView>(`/api/posts/${id}/outside-time`, signal),
  });
export const answeredPromptOptions = (postId: number) =>
  queryOptions({
    queryKey: ['answered-prompt', postId],
    queryFn: ({ signal }) => getJson<PromptAnswered>(`/api/posts/${postId}/answered-prompt`, signal),
  });

export const promptsOptions = (id: number) =>
  queryOptions({
    queryKey: ['prompts', id],
    queryFn: ({ signal }) => getJson<PromptView[]>(`/api/classes/${id}/prompts`, signal),
  });

export const peopleOptions = (id: number) =>
  queryOptions({
    queryKey: ['people', id],
    queryFn: ({ signal }) => getJson<MemberLine[]>(`/api/classes/${id}/people`, signal),
  });

export const ownSourcesOptions = (id: number) =>
  queryOptions({
    queryKey: ['own-sources', id],
    queryFn: ({ signal }) => getJson<SourceView[]>(`/api/classes/${id}/sources/mine`, signal),
  });

export const sourceEntriesOptions = (source: number) =>
  queryOptions({
    queryKey: ['source-entries', source],
    queryFn: ({ signal }) => getJson<EntryLine[]>(`/api/sources/${source}/entries`, signal),
  });

export const sourcesOptions = (id: number) =>
  queryOptions({
    queryKey: ['sources', id],
    queryFn: ({ signal }) => getJson<SourceView[]>(`/api/classes/${id}/sources`, signal),
  });

/** What of the pile is looked at. */
export interface PileWish {
  classId?: number;
  sort: string;
  most?: number;
}

export const pileOptions = (wish: PileWish) =>
  queryOptions({
    queryKey: ['pile', wish],
    queryFn: ({ signal }) =>
      getJson<Pile>(
        `/api/pile?${new URLSearchParams({ sort: wish.sort, ...(wish.classId ? { classId: String(wish.classId) } : {}), most: String(wish.most ?? 100) })}`,
        signal,
      ),
    refetchInterval: 15_000,
  });

export const returnNotesOptions = queryOptions({
  queryKey: ['return-notes'],
  queryFn: ({ signal }) => getJson<ReturnNote[]>('/api/return-notes', signal),
});

export const usualWaitOptions = (classId: number) =>
  queryOptions({
    queryKey: ['usual-wait', classId],
    queryFn: ({ signal }) => getJson<UsualWaitView>(`/api/classes/${classId}/usual-wait`, signal),
  });

export const noticeOptions = (classId: number) =>
  queryOptions({
    queryKey: ['notice', classId],
    queryFn: ({ signal }) => getJson<Notice>(`/api/classes/${classId}/notice`, signal),
  });

export const approvalOptions = (classId: number, person: number) =>
  queryOptions({
    queryKey: ['approval', classId, person],
    queryFn: ({ signal }) => getJson<Approval>(`/api/classes/${classId}/people/${person}/approval`, signal),
  });

export const stripOptions = (prompt: number, blind = false) =>
  queryOptions({
    queryKey: blind ? ['strip', prompt, 'blind'] : ['strip', prompt],
    queryFn: ({ signal }) => getJson<Strip>(`/api/prompts/${prompt}/marking${blind ? '?blind=true' : ''}`, signal),
  });

export const paperOptions = (prompt: number, student: number) =>
  queryOptions({
    queryKey: ['paper', prompt, student],
    queryFn: ({ signal }) => getJson<Paper>(`/api/prompts/${prompt}/marking/${student}`, signal),
  });

export const earlierOptions = (prompt: number, student: number) =>
  queryOptions({
    queryKey: ['paper', prompt, student, 'earlier'],
    queryFn: ({ signal }) =>
      getJson<Record<string, EarlierMark[]>>(`/api/prompts/${prompt}/marking/${student}/earlier`, signal),
  });

export const releaseTimeOptions = (prompt: number) =>
  queryOptions({
    queryKey: ['release-time', prompt],
    queryFn: ({ signal }) => getJson<PlannedRelease>(`/api/prompts/${prompt}/marking/release-time`, signal),
  });

export const allowanceOptions = (prompt: number, student: number) =>
  queryOptions({
    queryKey: ['allowance', prompt, student],
    queryFn: ({ signal }) => getJson<AllowanceView>(`/api/prompts/${prompt}/allowances/${student}`, signal),
  });

export const scoreHistoryOptions = (prompt: number, student: number) =>
  queryOptions({
    queryKey: ['score-history', prompt, student],
    queryFn: ({ signal }) => getJson<ScoreLine[]>(`/api/prompts/${prompt}/marking/${student}/history`, signal),
  });

export const frontPageOptions = (id: number) =>
  queryOptions({
    queryKey: ['front-page', id],
    queryFn: ({ signal }) => getJson<FrontPage>(`/api/classes/${id}/front-page`, signal),
  });

export const roomOptions = (id: number) =>
  queryOptions({
    queryKey: ['room', id],
    queryFn: ({ signal }) => getJson<RoomView>(`/api/classes/${id}/room`, signal),
  });

export const feedbackOptions = (id: number) =>
  queryOptions({
    queryKey: ['feedback', id],
    queryFn: ({ signal }) => getJson<FeedbackView>(`/api/classes/${id}/feedback`, signal),
  });

/** How the student who asks sees a paper of theirs. */
export const ownViewOptions = (prompt: number) =>
  queryOptions({
    queryKey: ['own-view', prompt],
    queryFn: ({ signal }) => getJson<OwnViewPage>(`/api/prompts/${prompt}/own-view`, signal),
  });

/** What the viewer is asked to review in a class. */
export const toReviewOptions = (classId: number) =>
  queryOptions({
    queryKey: ['to-review', classId],
    queryFn: ({ signal }) => getJson<ReviewToGive[]>(`/api/classes/${classId}/peer-reviews`, signal),
  });

export const peerReviewOptions = (review: number) =>
  queryOptions({
    queryKey: ['peer-review', review],
    queryFn: ({ signal }) => getJson<PeerReviewPage>(`/api/peer-reviews/${review}`, signal),
  });

/** @param student whose paper it is; left out for the viewer's own */
export const receivedOptions = (prompt: number, student?: number) =>
  queryOptions({
    queryKey: ['received-reviews', prompt, student],
    queryFn: ({ signal }) =>
      getJson<ReceivedReviews>(`/api/prompts/${prompt}/peer-reviews${student ? `/${student}` : ''}`, signal),
  });

export const roundsOptions = (classId: number) =>
  queryOptions({
    queryKey: ['peer-rounds', classId],
    queryFn: ({ signal }) => getJson<RoundInClass[]>(`/api/classes/${classId}/peer-rounds`, signal),
  });

export const roundOptions = (prompt: number) =>
  queryOptions({
    queryKey: ['peer-round', prompt],
    queryFn: ({ signal }) => getJson<RoundView>(`/api/prompts/${prompt}/peer-round`, signal),
  });

/** A paper to warm up on, for who reviews. */
export const warmUpOptions = (id: number) =>
  queryOptions({
    queryKey: ['warm-up', id],
    queryFn: ({ signal }) => getJson<WarmUpPage>(`/api/warm-ups/${id}`, signal),
  });

/** The papers to warm up on of a prompt, for who marks. */
export const warmUpPapersOptions = (prompt: number) =>
  queryOptions({
    queryKey: ['warm-up-papers', prompt],
    queryFn: ({ signal }) => getJson<WarmUpPapers>(`/api/prompts/${prompt}/warm-ups`, signal),
  });

/** A plan of who reads whom, with what is to stay; nothing is kept of it. */
export const roundPlanOptions = (prompt: number, seed: number, kept: Pair[]) =>
  queryOptions({
    queryKey: ['peer-round', prompt, 'plan', seed, kept],
    queryFn: () => postJson<PlanView>(`/api/prompts/${prompt}/peer-round/plan`, { seed, kept }),
    placeholderData: (was) => was,
  });

export const secondReadingsOptions = (prompt: number) =>
  queryOptions({
    queryKey: ['second-readings', 'prompt', prompt],
    queryFn: ({ signal }) => getJson<SecondReadingsView>(`/api/prompts/${prompt}/second-readings`, signal),
  });

/** What the marker who asks is to read a second time. */
export const askedOfMeOptions = (classId: number) =>
  queryOptions({
    queryKey: ['second-readings', 'mine', classId],
    queryFn: ({ signal }) => getJson<AskedOfMe[]>(`/api/classes/${classId}/second-readings`, signal),
  });

export const secondPageOptions = (prompt: number, student: number) =>
  queryOptions({
    queryKey: ['second-readings', 'paper', prompt, student],
    queryFn: ({ signal }) => getJson<SecondPage>(`/api/prompts/${prompt}/second-readings/${student}`, signal),
  });

/** @param search the two sides, and one prompt or none */
export const agreementOptions = (classId: number, search: string) =>
  queryOptions({
    queryKey: ['agreement', classId, search],
    queryFn: ({ signal }) => getJson<AgreementView>(`/api/classes/${classId}/agreement?${search}`, signal),
  });

export const samenessOptions = (prompt: number) =>
  queryOptions({
    queryKey: ['sameness', prompt],
    queryFn: ({ signal }) => getJson<SamenessView>(`/api/prompts/${prompt}/sameness`, signal),
  });

/** How much a student's answers share with others. */
export const samenessOfOptions = (prompt: number, student: number) =>
  queryOptions({
    queryKey: ['sameness', prompt, student],
    queryFn: ({ signal }) => getJson<SameOf>(`/api/prompts/${prompt}/marking/${student}/sameness`, signal),
    staleTime: 60_000,
  });

export const notedOptions = (prompt: number, post: number) =>
  queryOptions({
    queryKey: ['feedback', 'noted', prompt, post],
    queryFn: ({ signal }) => getJson<NotedPost>(`/api/prompts/${prompt}/feedback/${post}`, signal),
  });

export const staffOptions = queryOptions({
  queryKey: ['staff'],
  queryFn: ({ signal }) => getJson<StaffLine[]>('/api/school/staff', signal),
});

export const schoolWeeksOptions = queryOptions({
  queryKey: ['school-weeks'],
  queryFn: ({ signal }) => getJson<SchoolWeeks>('/api/school/weeks', signal),
});

export const findableOptions = queryOptions({
  queryKey: ['school-findable'],
  queryFn: ({ signal }) => getJson<Findable>('/api/school/findable', signal),
});

export const schoolAddressOptions = queryOptions({
  queryKey: ['school-address'],
  queryFn: ({ signal }) => getJson<AddressView>('/api/school/address', signal),
});

/** A prompt as it is to be changed, or copied so many weeks later. */
export const editablePromptOptions = (prompt: number, weeksLater = 0) =>
  queryOptions({
    queryKey: ['editable-prompt', prompt, weeksLater],
    queryFn: ({ signal }) => getJson<Editable>(`/api/prompts/${prompt}/editable?weeksLater=${weeksLater}`, signal),
    // What one is changing is not taken from under one's hands.
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
  });

export const promptOptions = (id: number) =>
  queryOptions({
    queryKey: ['prompt', id],
    queryFn: ({ signal }) => getJson<PromptView>(`/api/prompts/${id}`, signal),
  });

export const classPictureOptions = (id: number) =>
  queryOptions({
    queryKey: ['class-picture', id],
    queryFn: ({ signal }) => getJson<Picture>(`/api/classes/${id}/class-picture`, signal),
  });

export const phrasesOptions = (criterion: string, level: string) =>
  queryOptions({
    queryKey: ['phrases', criterion, level],
    queryFn: ({ signal }) => getJson<PhraseView[]>(withParams('/api/phrases', { criterion, level }), signal),
  });

export const questionsOptions = (prompt: number) =>
  queryOptions({
    queryKey: ['questions', prompt],
    queryFn: ({ signal }) => getJson<QuestionList>(`/api/prompts/${prompt}/questions`, signal),
  });

/** The posts that stand as examples with a prompt. */
export const examplesOptions = (prompt: number) =>
  queryOptions({
    queryKey: ['examples', prompt],
    queryFn: ({ signal }) => getJson<ExamplePosts>(`/api/prompts/${prompt}/examples`, signal),
  });

/** What one was asked about own posts. */
export const exampleAsksOptions = queryOptions({
  queryKey: ['example-asks'],
  queryFn: ({ signal }) => getJson<ExampleAsked[]>('/api/examples', signal),
});

export const bundlesOptions = (id: number) =>
  queryOptions({
    queryKey: ['bundles', id],
    queryFn: ({ signal }) => getJson<BundlesView>(`/api/classes/${id}/bundles`, signal),
  });

export const scoreSheetOptions = (id: number) =>
  queryOptions({
    queryKey: ['score-sheet', id],
    queryFn: ({ signal }) => getJson<Sheet>(`/api/classes/${id}/score-sheet`, signal),
  });

export const weeksOptions = (id: number, by: WeeksView['by'], term?: string) =>
  queryOptions({
    queryKey: ['weeks', id, by, term ?? ''],
    queryFn: ({ signal }) =>
      getJson<WeeksView>(`/api/classes/${id}/weeks?by=${by}${term ? `&term=${term}` : ''}`, signal),
  });

/** How the students stand in the picture of who answers whom. */
export type AnsweringOrder = AnsweringView['by'];

export const whoAnswersWhomPath = (
  id: number,
  by: AnsweringOrder,
  range: { term?: number; fromWeek?: number; toWeek?: number },
  ending = '',
) => withParams(`/api/classes/${id}/who-answers-whom${ending}`, { by, ...range });

export const whoAnswersWhomOptions = (
  id: number,
  by: AnsweringOrder,
  range: { term?: number; fromWeek?: number; toWeek?: number },
) =>
  queryOptions({
    queryKey: ['who-answers-whom', id, by, range],
    queryFn: ({ signal }) => getJson<AnsweringView>(whoAnswersWhomPath(id, by, range), signal),
  });

export const toAnswerOptions = (id: number) =>
  queryOptions({
    queryKey: ['porch', id, 'to-answer'],
    queryFn: ({ signal }) => getJson<ToAnswer>(`/api/classes/${id}/to-answer`, signal),
  });

export const weekOfStudentOptions = (id: number, monday: string, student: number) =>
  queryOptions({
    queryKey: ['weeks', id, monday, student],
    queryFn: ({ signal }) => getJson<WeekOfStudent>(`/api/classes/${id}/weeks/${monday}/students/${student}`, signal),
  });

export const reportTemplatesOptions = (id: number) =>
  queryOptions({
    queryKey: ['report-templates', id],
    queryFn: ({ signal }) => getJson<TemplateName[]>(`/api/classes/${id}/report-templates`, signal),
  });

export const reportPath = (id: number, monday: string, student: number, template: string, ending = '') =>
  withParams(`/api/classes/${id}/weeks/${monday}/students/${student}/report${ending}`, { template });

export const reportOptions = (id: number, monday: string, student: number, template: string) =>
  queryOptions({
    queryKey: ['report', id, monday, student, template],
    queryFn: ({ signal }) => getJson<WeekReport>(reportPath(id, monday, student, template), signal),
  });

/** While reports are made, or their mails are on the way, one looks again. */
export const reportsOfWeekOptions = (id: number, day: string) =>
  queryOptions({
    queryKey: ['reports', id, day],
    queryFn: ({ signal }) => getJson<WeekReports>(`/api/classes/${id}/weeks/${day}/reports`, signal),
    refetchInterval: ({ state: { data } }) =>
      data?.run && !data.run.ended ? 700 : data?.lines.some((l) => l.told?.mail === 'waits') ? 3_000 : false,
  });

/** What a student was told week by week; the reader's own where no student is named. */
export const filedReportsOptions = (id: number, student?: number) =>
  queryOptions({
    queryKey: ['filed-reports', id, student],
    queryFn: ({ signal }) =>
      getJson<ReportName[]>(
        student ? `/api/classes/${id}/students/${student}/reports` : `/api/classes/${id}/my-reports`,
        signal,
      ),
  });

export const filedReportOptions = (report: string) =>
  queryOptions({
    queryKey: ['filed-report', report],
    queryFn: ({ signal }) => getJson<FiledReport>(`/api/week-reports/${report}`, signal),
  });

export const quietOptions = (id: number) =>
  queryOptions({
    queryKey: ['quiet', id],
    queryFn: ({ signal }) => getJson<Quiet>(`/api/classes/${id}/quiet`, signal),
  });

export const ownWeeksOptions = (id: number) =>
  queryOptions({
    queryKey: ['own-weeks', id],
    queryFn: ({ signal }) => getJson<OwnWeeks>(`/api/classes/${id}/own-weeks`, signal),
  });

export const dueOptions = (id: number) =>
  queryOptions({
    queryKey: ['due', id],
    queryFn: ({ signal }) => getJson<DueLine[]>(`/api/classes/${id}/due`, signal),
  });

export const drawerOptions = (classId: number) =>
  queryOptions({
    queryKey: ['drawer', classId],
    queryFn: ({ signal }) => getJson<DrawerItem[]>(`/api/classes/${classId}/drawer`, signal),
  });

export const rubricsOptions = queryOptions({
  queryKey: ['rubrics'],
  queryFn: ({ signal }) => getJson<Rubrics>('/api/rubrics', signal),
});
