package org.vastporch.server.writing;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import org.vastporch.core.blogs.Audience;
import org.vastporch.core.feeds.Excerpt;
import org.vastporch.core.feeds.OutsideTime;
import org.vastporch.core.marking.HandIns;
import org.vastporch.core.moderation.Course;
import org.vastporch.core.moderation.Standing;
import org.vastporch.core.moderation.State;
import org.vastporch.core.prompts.PromptMatch;
import org.vastporch.core.text.Folding;
import org.vastporch.core.text.TextFacts;
import org.vastporch.core.writing.WorkUsed;
import org.vastporch.server.access.ScopeSql;
import org.vastporch.server.rows.Rows;
import tools.jackson.databind.json.JsonMapper;

/** Posts and their versions. */
@Repository
class PostStore {

    /** One version in the list of all: its words, not its text. */
    record VersionLine(
            int no, String title, int words, @Nullable Long savedBy, Instant savedAt) {}

    static final String COLUMNS = """
        id, class_id, blog_id, author_id, prompt_id, source_id, outside_link, excerpt, gone_at, state, live, working, audience, handed_in_at, waiting_since, published_at, pinned_at, series, part,
        publish_at, binned_at, emptied_at, announcement, handed_no, rev""";

    private final JdbcClient jdbc;
    private final JsonMapper json;

    PostStore(JdbcClient jdbc, JsonMapper json) {
        this.jdbc = jdbc;
        this.json = json;
    }

    long add(
            long classId,
            long blogId,
            @Nullable Long authorId,
            @Nullable Long promptId,
            @Nullable Long sourceId,
            @Nullable String outsideLink,
            Audience audience,
            Instant now) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                insert into post (class_id, blog_id, author_id, prompt_id, source_id, outside_link, state, audience,
                       working, created_at, rev)
                values (:classId, :blogId, :author, :prompt, :source, :link, 'DRAFT', :audience, 1, :now, 1)""")
                .param("classId", classId)
                .param("blogId", blogId)
                .param("author", authorId)
                .param("prompt", promptId)
                .param("source", sourceId)
                .param("link", outsideLink)
                .param("audience", audience.ordinal())
                .param("now", Rows.utc(now))
                .update(key, "id");
        return key.getKey().longValue();
    }

    Optional<PostRow> find(long id) {
        return jdbc.sql("select " + COLUMNS + " from post where id = :id")
                .param("id", id)
                .query((row, n) -> post(row))
                .optional();
    }

    Optional<PostRow> lock(long id) {
        return jdbc.sql("select " + COLUMNS + " from post where id = :id for update")
                .param("id", id)
                .query((row, n) -> post(row))
                .optional();
    }

    /** The draft that an author has for a prompt, or without one in a blog. */
    Optional<Long> draftOf(long authorId, long blogId, @Nullable Long promptId) {
        return jdbc.sql("""
                select id
                  from post
                 where author_id = :author and blog_id = :blog and state = 'DRAFT' and live is null and prompt_id is
                        not distinct from :prompt
                 order by id desc
                 limit 1""")
                .param("author", authorId)
                .param("blog", blogId)
                .param("prompt", promptId)
                .query(Long.class)
                .optional();
    }

    /** What an author brought in by hand from an address, and did not throw away. */
    Optional<Long> ofLink(long classId, long authorId, String link) {
        return jdbc.sql("""
                select id
                  from post
                 where author_id = :author and class_id = :classId and outside_link = :link and source_id is null and
                        state <> 'BINNED'
                 limit 1""")
                .param("author", authorId)
                .param("classId", classId)
                .param("link", link)
                .query(Long.class)
                .optional();
    }

    List<PostRow> ofAuthor(long authorId, long classId) {
        return jdbc.sql("select " + COLUMNS
                        + " from post where author_id = :author and class_id = :classId and "
                        + "emptied_at is null order by coalesce(published_at, created_at) desc,"
                        + " id desc")
                .param("author", authorId)
                .param("classId", classId)
                .query((row, n) -> post(row))
                .list();
    }

    /** Posts for prompts that left draft, in the order in which they were handed in. */
    List<PostRow> handedIn(Collection<Long> promptIds) {
        if (promptIds.isEmpty()) return List.of();
        return jdbc.sql("select " + COLUMNS + """
                 \sfrom post
                 where prompt_id in (:prompts) and handed_in_at is not null and state <> 'BINNED'
                 order by handed_in_at, id""")
                .param("prompts", promptIds)
                .query((row, n) -> post(row))
                .list();
    }

    /** The words of one version of a post. */
    record Words(long postId, String title, String html) {}

    /** @param versions a post and the number of one of its versions, each */
    List<Words> words(List<Object[]> versions) {
        if (versions.isEmpty()) return List.of();
        return jdbc.sql(
                        "select post_id, title, html from post_version where (post_id, no) in (:versions) order by post_id")
                .param("versions", versions)
                .query((row, n) -> new Words(row.getLong("post_id"), row.getString("title"), row.getString("html")))
                .list();
    }

    /** Those of some posts that are up, in the versions that are, in the order of their numbers. */
    List<Posts.LiveText> live(Collection<Long> postIds) {
        if (postIds.isEmpty()) return List.of();
        return jdbc.sql("select p.id, v.no, v.title, v.html from post p join post_version v on v.post_id = p.id"
                        + " and v.no = p.live where p.id in (:posts) and " + ScopeSql.UP + " order by p.id")
                .param("posts", postIds)
                .query((row, n) -> new Posts.LiveText(
                        row.getLong("id"), row.getInt("no"), row.getString("title"), row.getString("html")))
                .list();
    }

    /** Locks them in the order of their numbers, so that two who lock the same wait for each other. */
    void lockHandedIn(long promptId, Collection<Long> authors) {
        jdbc.sql("""
                select id
                  from post
                 where prompt_id = :prompt and author_id in (:authors) and handed_in_at is not null
                 order by id
                   for update""")
                .param("prompt", promptId)
                .param("authors", authors)
                .query(Long.class)
                .list();
    }

    /** Posts that an author handed in to a blog since a moment, without one. */
    int handedInSince(long authorId, long blogId, Instant since, long except) {
        return jdbc.sql("""
                select count(*)
                  from post
                 where author_id = :author and blog_id = :blog and handed_in_at >= :since and state <> 'BINNED' and id
                        <> :except""")
                .param("author", authorId)
                .param("blog", blogId)
                .param("since", Rows.utc(since))
                .param("except", except)
                .query(Integer.class)
                .single();
    }

    /** A version of a post. */
    record VersionKey(long postId, int no) {}

    Optional<Version> version(long postId, int no) {
        VersionKey key = new VersionKey(postId, no);
        return Optional.ofNullable(versions(List.of(key)).get(key));
    }

    Map<VersionKey, Version> versions(Collection<VersionKey> wanted) {
        Map<VersionKey, Version> versions = new HashMap<>();
        if (wanted.isEmpty()) return versions;
        jdbc.sql("""
                select post_id, no, title, html, tags, audience, category_id, works, saved_by, begun_at, saved_at
                  from post_version
                 where (post_id, no) in (:wanted)""")
                .param(
                        "wanted",
                        wanted.stream()
                                .map(w -> new Object[] {w.postId(), w.no()})
                                .toList())
                .query(row -> {
                    versions.put(new VersionKey(row.getLong("post_id"), row.getInt("no")), version(row));
                });
        return versions;
    }

    /** The titles of posts by their ids, each as it is up, or as its author has it while none is. */
    Map<Long, String> titles(Collection<Long> postIds) {
        Map<Long, String> titles = new HashMap<>();
        if (postIds.isEmpty()) return titles;
        jdbc.sql("""
                select p.id, v.title
                  from post p
                  join post_version v on v.post_id = p.id and v.no = coalesce(p.live, p.working)
                 where p.id in (:posts)""").param("posts", postIds).query(row -> {
            titles.put(row.getLong("id"), row.getString("title"));
        });
        return titles;
    }

    /** Those of some posts that a person wrote. */
    List<Long> writtenBy(long personId, Collection<Long> postIds) {
        if (postIds.isEmpty()) return List.of();
        return jdbc.sql("select id from post where id in (:posts) and author_id = :person")
                .param("posts", postIds)
                .param("person", personId)
                .query(Long.class)
                .list();
    }

    /** The tags of what is up in a class, as far as somebody may read it; those that are used most come first. */
    List<String> tagsInUse(ScopeSql scope, long classId) {
        return jdbc.sql("select t.folded, min(t.tag) as tag, count(*) as uses from " + ScopeSql.TABLES
                        + " join post_tag t on t.post_id = p.id where p.class_id = :classId and " + ScopeSql.UP
                        + " and p.published_at <= :scope_now and " + scope.condition()
                        + " group by t.folded order by uses desc, t.folded limit 16")
                .params(scope.params())
                .param("classId", classId)
                .query((row, n) -> row.getString("tag"))
                .list();
    }

    /** Whether a file stands in one version of a post. */
    boolean stands(long postId, int no, String file) {
        return jdbc.sql("""
                                        select count(*)
                                         from post_version
                                         where post_id = :post and no = :no and locate(:file, html) > 0""")
                        .param("post", postId)
                        .param("no", no)
                        .param("file", file)
                        .query(Integer.class)
                        .single()
                > 0;
    }

    /** The name of a category; empty for none. */
    /** The names of categories by their ids. */
    Map<Long, String> categories(Collection<Long> ids) {
        Map<Long, String> names = new HashMap<>();
        if (ids.isEmpty()) return names;
        jdbc.sql("select id, name from category where id in (:ids)")
                .param("ids", ids)
                .query(row -> {
                    names.put(row.getLong("id"), row.getString("name"));
                });
        return names;
    }

    /** All versions of a post, the newest first. */
    List<VersionLine> versions(long postId) {
        return jdbc.sql("""
                                select no, title, words, saved_by, saved_at
                                 from post_version
                                 where post_id = :post
                                 order by no desc""")
                .param("post", postId)
                .query((row, n) -> new VersionLine(
                        row.getInt("no"),
                        row.getString("title"),
                        row.getInt("words"),
                        Rows.number(row, "saved_by"),
                        Rows.instant(row, "saved_at")))
                .list();
    }

    int words(long postId, int no) {
        return jdbc.sql("select words from post_version where post_id = :post and no = :no")
                .param("post", postId)
                .param("no", no)
                .query(Integer.class)
                .single();
    }

    void putVersion(long postId, Version version, TextFacts facts) {
        jdbc.sql("""
                merge into post_version (post_id, no, title, html, tags, audience, category_id, works, words,
                       first_lines, first_picture, saved_by, begun_at, saved_at)
                key (post_id, no)
                values (:post, :no, :title, :html, :tags, :audience, :category, :works, :words, :lines, :picture, :by,
                       :begun, :at)""")
                .param("post", postId)
                .param("no", version.no())
                .param("title", version.title())
                .param("html", version.html())
                .param("tags", String.join("\n", version.tags()))
                .param("audience", version.audience().ordinal())
                .param("category", version.content().categoryId())
                .param("works", json.writeValueAsString(version.content().works()))
                .param("words", facts.words())
                .param("lines", facts.firstLines(260))
                .param("picture", facts.firstPicture())
                .param("by", version.savedBy())
                .param("begun", Rows.utc(version.begunAt()))
                .param("at", Rows.utc(version.savedAt()))
                .update();
    }

    /**
     * Puts a post, whose row is locked, on its course; readers find it by what stands in the version that is up then.
     *
     * @param by who took the step
     */
    void settle(PostRow before, Course after, @Nullable Long by, Instant now) {
        Standing standing = after.standing();
        jdbc.sql("""
                update post
                   set state = :state, live = :live, working = :working, waiting_since = :waiting,
                       published_at = :published, handed_in_at = :handedIn, publish_at = :publishAt, rev = rev + 1
                 where id = :id""")
                .param("state", standing.state().name())
                .param("live", standing.live())
                .param("working", standing.working())
                .param("waiting", Rows.utc(after.waitingSince()))
                .param("published", Rows.utc(after.publishedAt()))
                .param("handedIn", Rows.utc(after.handedInAt()))
                .param("publishAt", Rows.utc(after.publishAt()))
                .param("id", before.id())
                .update();
        State was = before.standing().state();
        if ((was == State.BINNED) != (standing.state() == State.BINNED))
            setBinned(before.id(), standing.state() == State.BINNED ? new Binned(now, by, was) : null);
        if (!Objects.equals(before.standing().live(), standing.live())) show(before, standing.live());
    }

    /** The audience goes with the version: an approval lets it reach further, taking it back undoes that. */
    private void show(PostRow post, @Nullable Integer live) {
        Optional<Version> up = live == null ? Optional.empty() : version(post.id(), live);
        setTags(post.classId(), post.id(), up.map(Version::tags).orElse(List.of()));
        setCategory(post.id(), up.map(v -> v.content().categoryId()).orElse(null));
        up.ifPresent(version -> setAudience(post.id(), version.audience()));
    }

    /**
     * Notes which version was handed in, and of one that was handed in before whether staff had asked for it.
     *
     * @param before the post as it was
     */
    void setHanded(PostRow before, int no, Instant now) {
        int stood = Math.max(
                Objects.requireNonNullElse(before.standing().live(), 0),
                Objects.requireNonNullElse(before.handedNo(), 0));
        if (before.handedInAt() != null && stood > 0 && stood < no)
            jdbc.sql("""
                    insert into handed_again (post_id, version_no, before_no, handed_at, asked, taken)
                    select p.id, :no, :stood, :now,
                           exists (select 1 from decision d
                                    where d.subject = 'post' and d.subject_id = p.id and d.step = 'RETURN'
                                      and d.undone_at is null
                                      and d.decided_at > coalesce((select max(a.handed_at) from handed_again a
                                                                    where a.post_id = p.id), p.handed_in_at)),
                           false
                      from post p
                     where p.id = :id""")
                    .param("id", before.id())
                    .param("no", no)
                    .param("stood", stood)
                    .param("now", Rows.utc(now))
                    .update();
        jdbc.sql("update post set handed_no = :no where id = :id")
                .param("no", no)
                .param("id", before.id())
                .update();
    }

    /** A version that was handed in after the first one. */
    record HandedAgain(long postId, HandIns.Again again) {}

    /** What of posts for prompts was handed in again, in order. */
    List<HandedAgain> handedAgain(Collection<Long> promptIds) {
        if (promptIds.isEmpty()) return List.of();
        return jdbc.sql("""
                select a.post_id, a.version_no, a.before_no, a.handed_at, a.asked, a.taken
                  from handed_again a
                  join post p on p.id = a.post_id
                 where p.prompt_id in (:prompts)
                 order by a.handed_at, a.version_no""")
                .param("prompts", promptIds)
                .query((row, n) -> new HandedAgain(
                        row.getLong("post_id"),
                        new HandIns.Again(
                                row.getInt("version_no"),
                                row.getInt("before_no"),
                                Rows.instant(row, "handed_at"),
                                row.getBoolean("asked"),
                                row.getBoolean("taken"))))
                .list();
    }

    /** @return false if that version was not handed in again */
    boolean setTaken(long postId, int version, boolean taken) {
        return jdbc.sql("update handed_again set taken = :taken where post_id = :post and version_no = :version")
                        .param("taken", taken)
                        .param("post", postId)
                        .param("version", version)
                        .update()
                > 0;
    }

    /**
     * How a post came into the bin.
     *
     * @param by who put it there; null if that person was erased
     * @param from the state in which it was; null if it was thrown away before that was noted
     */
    record Binned(Instant at, @Nullable Long by, @Nullable State from) {}

    /** @param binned null for taking it out */
    private void setBinned(long id, @Nullable Binned binned) {
        jdbc.sql("update post set binned_at = :at, binned_by = :by, binned_from = :from where id = :id")
                .param("at", binned == null ? null : Rows.utc(binned.at()))
                .param("by", binned == null ? null : binned.by())
                .param(
                        "from",
                        binned == null || binned.from() == null
                                ? null
                                : binned.from().name())
                .param("id", id)
                .update();
    }

    Optional<Binned> binned(long id) {
        return jdbc.sql("select binned_at, binned_by, binned_from from post where id = :id and binned_at is not null")
                .param("id", id)
                .query((row, n) -> new Binned(
                        Rows.instant(row, "binned_at"),
                        Rows.number(row, "binned_by"),
                        row.getString("binned_from") == null ? null : State.valueOf(row.getString("binned_from"))))
                .optional();
    }

    void setAnnouncement(long id, boolean announcement) {
        jdbc.sql("update post set announcement = :announcement where id = :id")
                .param("announcement", announcement)
                .param("id", id)
                .update();
    }

    /** The posts whose time to go up has come. */
    List<Long> due(Instant now) {
        return jdbc.sql("select id from post where state = 'SCHEDULED' and publish_at <= :now order by publish_at, id")
                .param("now", Rows.utc(now))
                .query(Long.class)
                .list();
    }

    /** The posts of a class that go up later, the next one first. */
    List<PostRow> scheduled(long classId) {
        return jdbc.sql("select " + COLUMNS
                        + " from post where state = 'SCHEDULED' and class_id = :classId order by publish_at, id")
                .param("classId", classId)
                .query((row, n) -> post(row))
                .list();
    }

    /**
     * Throws away what has lain in the bin since before {@code until}: the texts go, the bare row stays so that nothing
     * that names it breaks.
     */
    int empty(Instant until, Instant now) {
        String old =
                "select p.id from post p where p.state = 'BINNED' and p.binned_at < :until and p.emptied_at is null";
        jdbc.sql("delete from post_tag where post_id in (" + old + ")")
                .param("until", Rows.utc(until))
                .update();
        jdbc.sql("""
                                update post_version
                                 set title = '', html = '', tags = '', works = '[]', words = 0, first_lines =
                                    '', first_picture = ''
                                 where post_id in (""" + old + ")").param("until", Rows.utc(until)).update();
        return jdbc.sql("""
                                update post
                                 set emptied_at = :now, series = null
                                 where state = 'BINNED' and binned_at < :until and emptied_at is null""")
                .param("until", Rows.utc(until))
                .param("now", Rows.utc(now))
                .update();
    }

    void setCategory(long id, @Nullable Long categoryId) {
        jdbc.sql("update post set category_id = :category where id = :id")
                .param("category", categoryId)
                .param("id", id)
                .update();
    }

    void setAudience(long id, Audience audience) {
        jdbc.sql("update post set audience = :audience where id = :id")
                .param("audience", audience.ordinal())
                .param("id", id)
                .update();
    }

    /** By what it is known which prompt a post answers; nothing if it was written for one, or if that is not known. */
    Optional<PromptMatch.By> matchedBy(long id) {
        return jdbc.sql("select matched_by from post where id = :id and matched_by is not null")
                .param("id", id)
                .query(String.class)
                .optional()
                .map(PromptMatch.By::valueOf);
    }

    /** Nothing for a post that was not gathered. */
    Optional<OutsideTime> outsideTime(long id) {
        return jdbc.sql("select outside_says, outside_seen, outside_counts from post where id = :id and outside_says is"
                        + " not null")
                .param("id", id)
                .query((row, n) -> new OutsideTime(
                        Rows.instant(row, "outside_says"),
                        Rows.instant(row, "outside_seen"),
                        row.getString("outside_counts") == null
                                ? null
                                : OutsideTime.Counts.valueOf(row.getString("outside_counts"))))
                .optional();
    }

    /** Keeps what a person decided; the time that counts is the one at which it was handed in. */
    void setOutsideTime(long id, OutsideTime time) {
        jdbc.sql("update post set outside_counts = :counts, handed_in_at = :at, rev = rev + 1 where id = :id")
                .param("counts", time.counts().name())
                .param("at", Rows.utc(time.counted()))
                .param("id", id)
                .update();
    }

    /** @param by null if that is not known */
    record FromOutside(long postId, String title, @Nullable Long authorId, PromptMatch.@Nullable By by) {}

    /** The posts from outside that answer a prompt, the newest first. */
    List<FromOutside> fromOutside(long promptId) {
        return jdbc.sql("""
                select p.id, v.title, p.author_id, p.matched_by
                  from post p
                  join post_version v on v.post_id = p.id and v.no = coalesce(p.live, p.working)
                 where p.prompt_id = :prompt and p.outside_link is not null and p.state <> 'BINNED'
                 order by p.handed_in_at desc, p.id desc""")
                .param("prompt", promptId)
                .query((row, n) -> new FromOutside(
                        row.getLong("id"),
                        row.getString("title"),
                        Rows.number(row, "author_id"),
                        row.getString("matched_by") == null
                                ? null
                                : PromptMatch.By.valueOf(row.getString("matched_by"))))
                .list();
    }

    /** Keeps what an author says with a post; nothing if it is empty. */
    void setHandInWord(long id, String word) {
        jdbc.sql("delete from hand_in_word where post_id = :id").param("id", id).update();
        if (!word.isEmpty())
            jdbc.sql("insert into hand_in_word (post_id, word) values (:id, :word)")
                    .param("id", id)
                    .param("word", word)
                    .update();
    }

    /** What authors said with their posts, by post. */
    Map<Long, String> handInWords(Collection<Long> ids) {
        Map<Long, String> words = new HashMap<>();
        if (ids.isEmpty()) return words;
        jdbc.sql("select post_id, word from hand_in_word where post_id in (:ids)")
                .param("ids", ids)
                .query(row -> {
                    words.put(row.getLong("post_id"), row.getString("word"));
                });
        return words;
    }

    /** Keeps which prompt a post turned out to answer. */
    void setMatched(long id, PromptMatch.Own match) {
        jdbc.sql("update post set prompt_id = :prompt, matched_by = :by where id = :id")
                .param("prompt", match.promptId())
                .param("by", match.by().name())
                .param("id", id)
                .update();
    }

    /** Keeps what a person set; another revision, since whoever decides on the text saw another prompt. */
    void setPrompt(long id, @Nullable Long promptId) {
        jdbc.sql("update post set prompt_id = :prompt, matched_by = :by, rev = rev + 1 where id = :id")
                .param("prompt", promptId)
                .param("by", PromptMatch.By.PERSON.name())
                .param("id", id)
                .update();
    }

    /** The tags by which readers find a post are those of the version that is up. */
    void setTags(long classId, long postId, List<String> tags) {
        jdbc.sql("delete from post_tag where post_id = :post")
                .param("post", postId)
                .update();
        for (String tag : tags)
            jdbc.sql("""
                                    merge into post_tag (class_id, folded, post_id, tag) key (class_id, folded,
                                        post_id)
                                     values (:classId, :folded, :post, :tag)""")
                    .param("classId", classId)
                    .param("folded", Folding.fold(tag))
                    .param("post", postId)
                    .param("tag", tag)
                    .update();
    }

    static PostRow post(ResultSet row) throws SQLException {
        return new PostRow(
                row.getLong("id"),
                row.getLong("class_id"),
                row.getLong("blog_id"),
                Rows.number(row, "author_id"),
                Rows.number(row, "prompt_id"),
                Rows.number(row, "source_id"),
                row.getString("outside_link"),
                row.getString("excerpt") == null ? null : Excerpt.valueOf(row.getString("excerpt")),
                Rows.instant(row, "gone_at"),
                new Course(
                        new Standing(
                                State.valueOf(row.getString("state")),
                                Rows.integer(row, "live"),
                                Rows.integer(row, "working")),
                        Rows.instant(row, "waiting_since"),
                        Rows.instant(row, "published_at"),
                        Rows.instant(row, "handed_in_at"),
                        Rows.instant(row, "publish_at")),
                Audience.values()[row.getInt("audience")],
                Rows.instant(row, "pinned_at"),
                row.getString("series"),
                Rows.integer(row, "part"),
                Rows.instant(row, "binned_at"),
                Rows.instant(row, "emptied_at"),
                row.getBoolean("announcement"),
                Rows.integer(row, "handed_no"),
                row.getInt("rev"));
    }

    private Version version(ResultSet row) throws SQLException {
        List<WorkUsed> works = List.of(json.readValue(row.getString("works"), WorkUsed[].class));
        Content content = new Content(
                row.getString("title"),
                row.getString("html"),
                row.getString("tags").lines().filter(t -> !t.isBlank()).toList(),
                Audience.values()[row.getInt("audience")],
                Rows.number(row, "category_id"),
                works);
        return new Version(
                row.getInt("no"),
                content,
                Rows.number(row, "saved_by"),
                Rows.instant(row, "begun_at"),
                Rows.instant(row, "saved_at"));
    }
}
