package org.vastporch.server.blogs;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.GeneratedKeyHolder;
import org.springframework.stereotype.Repository;
import org.vastporch.core.access.Audience;
import org.vastporch.core.access.BlogFacts.Commenters;
import org.vastporch.core.blogs.BlogKind;
import org.vastporch.core.moderation.Policy;
import org.vastporch.server.http.Rows;

@Repository
class BlogStore {

    private static final String COLUMNS = """
        b.id, b.class_id, b.kind, b.title, b.address, b.about, b.widest, b.commenters, b.post_policy, b.comment_policy, b.owner_id, b.group_id, b.set_id""";

    private final JdbcClient jdbc;

    BlogStore(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** What a blog is made of. */
    record NewBlog(long classId, BlogKind kind, String title, String address, String about, Audience widest, Commenters commenters,
                   @Nullable Long ownerId, @Nullable Long groupId, @Nullable Long setId) {}

    record BlogSet(long id, long classId, BlogKind kind, String pattern, String about, Audience widest, Commenters commenters) {}

    record BlogRow(long id, long classId, BlogKind kind, String title, String address, String about, Audience widest, Commenters commenters,
                   @Nullable Policy postPolicy, @Nullable Policy commentPolicy, @Nullable Long ownerId, @Nullable Long groupId, @Nullable Long setId) {}

    long add(NewBlog blog, Instant now) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                insert into blog (class_id, kind, title, address, about, widest, kind_widest, commenters, owner_id, group_id, set_id, created_at)
                values (:classId, :kind, :title, :address, :about, :widest, :kindWidest, :commenters, :ownerId, :groupId, :setId, :now)""")
            .param("classId", blog.classId()).param("kind", blog.kind().name()).param("title", blog.title()).param("address", blog.address())
            .param("about", blog.about()).param("widest", blog.widest().ordinal()).param("kindWidest", blog.kind().widest().ordinal())
            .param("commenters", blog.commenters().name()).param("ownerId", blog.ownerId()).param("groupId", blog.groupId())
            .param("setId", blog.setId()).param("now", Rows.utc(now)).update(key, "id");
        return key.getKey().longValue();
    }

    long addSet(long classId, BlogKind kind, String pattern, String about, Audience widest, Commenters commenters) {
        GeneratedKeyHolder key = new GeneratedKeyHolder();
        jdbc.sql("""
                insert into blog_set (class_id, kind, pattern, about, widest, commenters)
                values (:classId, :kind, :pattern, :about, :widest, :commenters)""")
            .param("classId", classId).param("kind", kind.name()).param("pattern", pattern).param("about", about)
            .param("widest", widest.ordinal()).param("commenters", commenters.name()).update(key, "id");
        return key.getKey().longValue();
    }

    List<BlogSet> sets(long classId) {
        return jdbc.sql("select id, class_id, kind, pattern, about, widest, commenters from blog_set where class_id = :classId order by id")
            .param("classId", classId)
            .query((row, n) -> new BlogSet(row.getLong("id"), row.getLong("class_id"), BlogKind.valueOf(row.getString("kind")), row.getString("pattern"),
                row.getString("about"), Audience.values()[row.getInt("widest")], Commenters.valueOf(row.getString("commenters")))).list();
    }

    boolean isAddress(long classId, String address) {
        return jdbc.sql("select count(*) from blog where class_id = :classId and address = :address")
            .param("classId", classId).param("address", address).query(Integer.class).single() > 0;
    }

    boolean hasOwnBlog(long setId, long personId) {
        return jdbc.sql("select count(*) from blog where set_id = :setId and owner_id = :personId")
            .param("setId", setId).param("personId", personId).query(Integer.class).single() > 0;
    }

    Optional<BlogRow> find(long id) {
        return jdbc.sql("select " + COLUMNS + " from blog b where b.id = :id").param("id", id).query((row, n) -> blog(row)).optional();
    }

    List<BlogRow> ofClass(long classId) {
        return jdbc.sql("select " + COLUMNS + """
                  from blog b
                  left join person o on o.id = b.owner_id
                 where b.class_id = :classId
                 order by b.set_id nulls first, o.family_name, o.given_name, b.title, b.id""")
            .param("classId", classId).query((row, n) -> blog(row)).list();
    }

    private static BlogRow blog(ResultSet row) throws SQLException {
        String postPolicy = row.getString("post_policy");
        String commentPolicy = row.getString("comment_policy");
        return new BlogRow(row.getLong("id"), row.getLong("class_id"), BlogKind.valueOf(row.getString("kind")), row.getString("title"),
            row.getString("address"), row.getString("about"), Audience.values()[row.getInt("widest")], Commenters.valueOf(row.getString("commenters")),
            postPolicy == null ? null : Policy.valueOf(postPolicy), commentPolicy == null ? null : Policy.valueOf(commentPolicy),
            Rows.number(row, "owner_id"), Rows.number(row, "group_id"), Rows.number(row, "set_id"));
    }
}
