import { Modal } from '@mantine/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import { matchPath, Navigate, Outlet, Route, Routes, useLocation, useNavigate, useParams } from 'react-router';
import { whenSignedOut } from '../api/client';
import { meOptions } from '../api/queries';
import type { Me } from '../api/schema';
import { giveBackEyes } from '../session/eyes';
import { FirstPasswordPage, SignInForm, SignInPage } from '../session/SignIn';
import { KeysProvider } from '../ui/keys';
import { Loading, NotThere, Trouble } from '../ui/Trouble';
import { Band, homeOf } from './Band';
import { ClassTabs } from './ClassTabs';
import { Stumbled } from './Stumbled';
import { TriesNote } from './TriesNote';

/**
 * A page whose script comes when it is needed. Once it has come the page is drawn at once; what had to wait for its script React
 * holds back for a third of a second.
 */
function page<P extends object>(load: () => Promise<React.ComponentType<P>>) {
  let come: React.ComponentType<P> | undefined;
  const fetch = () =>
    load().then((m) => {
      come = m;
      return { default: m };
    });
  const Late = lazy(fetch);
  // biome-ignore lint/correctness/noComponentHookFactories: called once for each page, when this module is read
  const Page = (props: P) => {
    const [Now] = useState<React.ElementType>(() => come ?? Late);
    return <Now {...props} />;
  };
  return Object.assign(Page, { fetch });
}

const TodayPage = page(() => import('../today/TodayPage').then((m) => m.TodayPage));
const PorchPage = page(() => import('../reading/PorchPage').then((m) => m.PorchPage));
const PostPage = page(() => import('../reading/PostPage').then((m) => m.PostPage));
const MarginPage = page(() => import('../margin/MarginPage').then((m) => m.MarginPage));
const PersonPage = page(() => import('../reading/PersonPage').then((m) => m.PersonPage));
const MyWritingPage = page(() => import('../writing/MyWritingPage').then((m) => m.MyWritingPage));
const ChoosePage = page(() => import('../writing/ChoosePage').then((m) => m.ChoosePage));
const WritePage = page(() => import('../writing/WritePage').then((m) => m.WritePage));
const ApprovePage = page(() => import('../moderation/ApprovePage').then((m) => m.ApprovePage));
const DecisionsPage = page(() => import('../moderation/DecisionsPage').then((m) => m.DecisionsPage));
const MarkPage = page(() => import('../marking/MarkPage').then((m) => m.MarkPage));
const ChoosePromptPage = page(() => import('../marking/ChoosePromptPage').then((m) => m.ChoosePromptPage));
const FeedbackPage = page(() => import('../marking/FeedbackPage').then((m) => m.FeedbackPage));
const OwnViewPage = page(() => import('../reviews/OwnViewPage').then((m) => m.OwnViewPage));
const SecondReadingsPage = page(() => import('../reviews/SecondReadingsPage').then((m) => m.SecondReadingsPage));
const SecondReadingPage = page(() => import('../reviews/SecondReadingPage').then((m) => m.SecondReadingPage));
const AgreementPage = page(() => import('../agreement/AgreementPage').then((m) => m.AgreementPage));
const SamenessPage = page(() => import('../sameness/SamenessPage').then((m) => m.SamenessPage));
const NewClassPage = page(() => import('../classes/NewClassPage').then((m) => m.NewClassPage));
const PeoplePage = page(() => import('../people/PeoplePage').then((m) => m.PeoplePage));
const RosterPage = page(() => import('../enrolment/RosterPage').then((m) => m.RosterPage));
const RulesPage = page(() => import('../classes/RulesPage').then((m) => m.RulesPage));
const SchoolPage = page(() => import('../people/SchoolPage').then((m) => m.SchoolPage));
const GroupsPage = page(() => import('../groups/GroupsPage').then((m) => m.GroupsPage));
const WaysPage = page(() => import('../enrolment/WaysPage').then((m) => m.WaysPage));
const TermPage = page(() => import('../classes/TermPage').then((m) => m.TermPage));
const AccountPage = page(() => import('../people/AccountPage').then((m) => m.AccountPage));
const WritingPage = page(() => import('../people/AccountPage').then((m) => m.WritingPage));
const JoinPage = page(() => import('../enrolment/JoinPage').then((m) => m.JoinPage));
const InvitationPage = page(() => import('../enrolment/JoinPage').then((m) => m.InvitationPage));
const BlogPage = page(() => import('../blogs/BlogPage').then((m) => m.BlogPage));
const DirectoryPage = page(() => import('../blogs/DirectoryPage').then((m) => m.DirectoryPage));
const SetupPage = page(() => import('../blogs/SetupPage').then((m) => m.SetupPage));
const BlogsPage = page(() => import('../blogs/BlogsPage').then((m) => m.BlogsPage));
const PromptsPage = page(() => import('../prompts/PromptsPage').then((m) => m.PromptsPage));
const PromptPage = page(() => import('../prompts/PromptPage').then((m) => m.PromptPage));
const ComposePage = page(() => import('../prompts/ComposePage').then((m) => m.ComposePage));
const ScoreSheetPage = page(() => import('../marking/ScoreSheetPage').then((m) => m.ScoreSheetPage));
const ClassPicturePage = page(() => import('../marking/ClassPicturePage').then((m) => m.ClassPicturePage));
const DrawerPage = page(() => import('../drawer/DrawerPage').then((m) => m.DrawerPage));
const BringMarksPage = page(() => import('../marking/BringMarksPage').then((m) => m.BringMarksPage));
const NewsPage = page(() => import('../subscriptions/NewsPage').then((m) => m.NewsPage));
const SubscriptionsPage = page(() => import('../subscriptions/SubscriptionsPage').then((m) => m.SubscriptionsPage));
const EmailPage = page(() => import('../people/EmailPage').then((m) => m.EmailPage));
const StopPage = page(() => import('../subscriptions/StopPage').then((m) => m.StopPage));
const SearchPage = page(() => import('../search/SearchPage').then((m) => m.SearchPage));
const SourcesPage = page(() => import('../feeds/SourcesPage').then((m) => m.SourcesPage));

const ReviewsPage = page(() => import('../peers/ReviewsPage').then((m) => m.ReviewsPage));
const PeerReviewPage = page(() => import('../peers/PeerReviewPage').then((m) => m.PeerReviewPage));
const ReceivedPage = page(() => import('../peers/ReceivedPage').then((m) => m.ReceivedPage));
const SchoolWeeksPage = page(() => import('../progress/SchoolWeeksPage').then((m) => m.SchoolWeeksPage));
const ReportsPage = page(() => import('../reports/ReportsPage').then((m) => m.ReportsPage));
const FiledReportPage = page(() => import('../reports/FiledReportPage').then((m) => m.FiledReportPage));
const WeeksPage = page(() => import('../progress/WeeksPage').then((m) => m.WeeksPage));
const WhoAnswersWhomPage = page(() => import('../progress/WhoAnswersWhomPage').then((m) => m.WhoAnswersWhomPage));
const WarmUpPage = page(() => import('../peers/WarmUpPage').then((m) => m.WarmUpPage));
const WarmUpPapersPage = page(() => import('../peers/WarmUpPapersPage').then((m) => m.WarmUpPapersPage));
const RoundPage = page(() => import('../peers/RoundPage').then((m) => m.RoundPage));

/** The pages of a class by their addresses in it. */
const IN_CLASS = {
  today: TodayPage,
  porch: PorchPage,
  'persons/:place': PersonPage,
  blog: DirectoryPage,
  'blog/:address': BlogPage,
  'my-writing': MyWritingPage,
  write: ChoosePage,
  'write/:postId': WritePage,
  'prompt/:promptId': PromptPage,
  'posts/:postId/margin': MarginPage,
  'posts/:postId': PostPage,
  approve: ApprovePage,
  decisions: DecisionsPage,
  mark: ChoosePromptPage,
  'mark/:promptId/:studentId?': MarkPage,
  search: SearchPage,
  feedback: FeedbackPage,
  'reports/:report': FiledReportPage,
  'own-view/:promptId': OwnViewPage,
  'second-readings/:promptId': SecondReadingsPage,
  'second-readings/:promptId/:studentId': SecondReadingPage,
  reviews: ReviewsPage,
  'reviews/:reviewId': PeerReviewPage,
  'reviews/of/:promptId/:studentId?': ReceivedPage,
  'reviews/round/:promptId': RoundPage,
  'reviews/warm-up/:warmUpId': WarmUpPage,
  'reviews/warm-up-papers/:promptId': WarmUpPapersPage,
  agreement: AgreementPage,
  'sameness/:promptId': SamenessPage,
};

/** Those of its setting up, under their tabs. */
const UNDER_TABS = {
  people: PeoplePage,
  'people/roster': RosterPage,
  'people/ways': WaysPage,
  groups: GroupsPage,
  term: TermPage,
  blogs: BlogsPage,
  'blogs/new': SetupPage,
  'blogs/:ref': SetupPage,
  prompts: PromptsPage,
  'prompts/new': ComposePage,
  'prompts/:promptId': ComposePage,
  weeks: WeeksPage,
  'weeks/who-answers-whom': WhoAnswersWhomPage,
  'weeks/reports': ReportsPage,
  scores: ScoreSheetPage,
  'scores/picture': ClassPicturePage,
  'scores/bring-in': BringMarksPage,
  drawer: DrawerPage,
  sources: SourcesPage,
  rules: RulesPage,
};

const routes = (pages: Record<string, React.ComponentType>) =>
  Object.entries(pages).map(([path, Page]) => <Route key={path} path={path} element={<Page />} />);

// The script of the page that is opened comes while the server is asked who is signed in.
const opened = Object.entries({ ...IN_CLASS, ...UNDER_TABS }).find(([path]) =>
  matchPath(`/classes/:classId/${path}`, location.pathname),
);
void opened?.[1].fetch();

/** Who is signed in decides what is shown; the address stays, so that a link leads through sign-in to its place. */
export function App() {
  const me = useQuery(meOptions);
  const client = useQueryClient();
  const [signedOut, setSignedOut] = useState(false);
  const { pathname } = useLocation();
  const navigate = useNavigate();
  useEffect(() => whenSignedOut(() => setSignedOut(true)), []);
  const id = me.data?.id;
  const was = useRef(id);
  // Whoever signs in over somebody else's page, here or in another tab, does not get to see it; what was typed there is kept for the other one.
  useEffect(() => {
    if (!id) return;
    if (was.current && was.current !== id) {
      giveBackEyes();
      window.location.assign('/');
    }
    was.current = id;
  }, [id]);
  const signedIn = async () => {
    if (!id) giveBackEyes();
    await client.refetchQueries({ queryKey: ['me'] });
    if (id && client.getQueryData(meOptions.queryKey)?.id !== id) return;
    setSignedOut(false);
    await client.invalidateQueries();
  };

  if (pathname === '/first-password')
    return (
      <FirstPasswordPage
        onDone={async () => {
          await signedIn();
          navigate('/');
        }}
      />
    );
  if (pathname === '/email')
    return (
      <Suspense fallback={null}>
        <EmailPage />
      </Suspense>
    );
  if (pathname === '/stop')
    return (
      <Suspense fallback={null}>
        <StopPage />
      </Suspense>
    );
  if (me.isPending) return null;
  if (pathname === '/join')
    return (
      <Suspense fallback={null}>
        <JoinPage me={me.data?.name} onDone={signedIn} />
      </Suspense>
    );
  if (pathname === '/invitation')
    return (
      <Suspense fallback={null}>
        <InvitationPage me={me.data?.name} onDone={signedIn} />
      </Suspense>
    );
  if (!me.data) {
    if (me.isError)
      return (
        <div className="page plain">
          <Trouble error={me.error} onRetry={() => me.refetch()} />
        </div>
      );
    return <SignInPage onDone={signedIn} />;
  }
  return (
    <KeysProvider>
      <Modal opened={signedOut} onClose={() => {}} withCloseButton={false} title="Please sign in again">
        <p className="muted above-0">
          Your session has ended. What you typed is still on this page and is saved when you have signed in.
        </p>
        <SignInForm onDone={signedIn} />
      </Modal>
      <Routes>
        <Route path="/" element={<Home me={me.data} />} />
        <Route path="/sign-in" element={<SignedIn />} />
        <Route
          path="/school"
          element={
            <Plain me={me.data}>
              <SchoolPage />
            </Plain>
          }
        />
        <Route
          path="/school/weeks"
          element={
            <Plain me={me.data}>
              <SchoolWeeksPage />
            </Plain>
          }
        />
        <Route
          path="/news"
          element={
            <Plain me={me.data}>
              <NewsPage />
            </Plain>
          }
        />
        <Route
          path="/subscriptions"
          element={
            <Plain me={me.data}>
              <SubscriptionsPage />
            </Plain>
          }
        />
        <Route
          path="/account"
          element={
            <Plain me={me.data}>
              <AccountPage />
            </Plain>
          }
        />
        <Route
          path="/account/writing/:classId"
          element={
            <Plain me={me.data}>
              <WritingPage />
            </Plain>
          }
        />
        <Route
          path="/classes/new"
          element={
            <Plain me={me.data}>
              <NewClassPage />
            </Plain>
          }
        />
        <Route path="/classes/:classId" element={<InClass me={me.data} />}>
          <Route index element={<FirstOfClass me={me.data} />} />
          {routes(IN_CLASS)}
          <Route element={<ClassTabs />}>{routes(UNDER_TABS)}</Route>
        </Route>
        <Route
          path="/posts/:postId"
          element={
            <Plain me={me.data}>
              <PostPage />
            </Plain>
          }
        />
        <Route
          path="*"
          element={
            <Plain me={me.data}>
              <NotThere />
            </Plain>
          }
        />
      </Routes>
    </KeysProvider>
  );
}

/** The way through sign-in leads to the page of ours from which it began. */
function SignedIn() {
  const to = new URLSearchParams(useLocation().search).get('to') ?? '/';
  return <Navigate to={/^\/[\w/-]*$/.test(to) && !to.startsWith('//') ? to : '/'} replace />;
}

function Home({ me }: { me: Me }) {
  if (me.classes.length > 0) return <Navigate to={homeOf(me.classes[0])} replace />;
  if (me.keeper) return <Navigate to="/school" replace />;
  if (me.teacher) return <Navigate to="/classes/new" replace />;
  return (
    <Plain me={me}>
      <div className="page plain">
        <h1>You are in no class now</h1>
        <p className="muted">When a teacher enrols you, the class appears here.</p>
      </div>
    </Plain>
  );
}

function FirstOfClass({ me }: { me: Me }) {
  const { classId } = useParams();
  const current = me.classes.find((c) => c.id === Number(classId));
  return current ? <Navigate to={homeOf(current)} replace /> : <NotThere />;
}

/** The class that one came from: pages that are of no class keep it in the band. */
const CAME_FROM = 'porch-class';

/** What stands under the band: it may still be on its way, and it may fall without taking the band along. */
function Coming({ children }: { children: React.ReactNode }) {
  const { pathname } = useLocation();
  return (
    <Stumbled of="page" at={pathname}>
      <Suspense
        fallback={
          <div className="page plain">
            <Loading />
          </div>
        }
      >
        {children}
      </Suspense>
    </Stumbled>
  );
}

function Plain({ me, children }: { me: Me; children: React.ReactNode }) {
  const cameFrom =
    me.classes.find((c) => c.id === Number(sessionStorage.getItem(CAME_FROM))) ??
    (me.classes.length === 1 ? me.classes[0] : undefined);
  return (
    <>
      <Band me={me} current={cameFrom} />
      <TriesNote me={me} />
      <Coming>{children}</Coming>
    </>
  );
}

function InClass({ me }: { me: Me }) {
  const { classId } = useParams();
  const { pathname } = useLocation();
  const current = me.classes.find((c) => c.id === Number(classId));
  useEffect(() => {
    if (current) sessionStorage.setItem(CAME_FROM, String(current.id));
  }, [current]);
  if (!current)
    return (
      <Plain me={me}>
        <NotThere />
      </Plain>
    );
  // The server gives a moderator nothing but what waits; this only spares them the empty frames of the other pages.
  const isFor = current.role !== 'MODERATOR' || /\/(approve|posts\/\d+|classes\/\d+)$/.test(pathname);
  return (
    <>
      <Band me={me} current={current} />
      <TriesNote me={me} />
      <Coming>{isFor ? <Outlet /> : <NotThere />}</Coming>
    </>
  );
}
