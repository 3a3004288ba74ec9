package org.vastporch.server.access;

import java.time.Instant;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.vastporch.core.access.Role;
import org.vastporch.core.access.Scope;
import org.vastporch.core.access.Scope.Clause;
import org.vastporch.core.access.Scope.Readers;
import org.vastporch.core.blogs.BlogKind;
import org.vastporch.server.rows.Rows;

/**
 * A scope as a condition on post p, blog b, class c, the author's membership am and the prompt that it answers, with
 * its parameters. It says nothing of its own: each part of a clause becomes one comparison.
 */
public final class ScopeSql {

    /** The tables that the condition speaks of. */
    public static final String TABLES = """
        post p
          join blog b on b.id = p.blog_id
          join class c on c.id = p.class_id
          left join membership am on am.class_id = p.class_id and am.person_id = p.author_id
          left join prompt answered on answered.id = p.prompt_id
        """;

    /** What is up for readers: approved, neither hidden nor binned. */
    public static final String UP = "p.live is not null and p.state not in ('HIDDEN', 'BINNED')";

    /** Whether a comment on the post lies in the pile. */
    static final String COMMENT_IN_PILE =
            "exists (select 1 from comment w where w.post_id = p.id and w.waiting_since is not null "
                    + "and w.state <> 'BINNED')";

    private static final String OF_EACH = quoted(BlogKind.values(), BlogKind::isForEach);
    private static final String WORKS = quoted(Role.values(), Role::works);

    /** Whether names are kept back around the post at the moment of the scope. */
    private static final String KEPT =
            "(coalesce(b.names_until > :scope_now, false) or coalesce(answered.names_until > :scope_now, false))";

    private final Map<String, Object> params = new HashMap<>();
    private final String condition;
    private final Scope scope;

    ScopeSql(Scope scope) {
        this.scope = scope;
        params.put("scope_now", Rows.utc(scope.now()));
        params.put("scope_me", scope.reader().personId());
        params.put("scope_works", scope.reader().worksIn().toArray(Long[]::new));
        condition = scope.clauses().stream().map(this::clause).collect(Collectors.joining("\n or ", "(", ")"));
    }

    public String condition() {
        return condition;
    }

    /** Whether the names of those who learn in the class are kept from the reader around the post. */
    public String keepsNames() {
        return "(" + KEPT + " and not p.class_id = any(:scope_works))";
    }

    /** Whether the reader may know who wrote the post. */
    public String namesAuthor() {
        return "(not " + keepsNames() + " or b.kind in (" + OF_EACH + ") or p.source_id is not null or am.role in ("
                + WORKS + ") or p.author_id = :scope_me)";
    }

    public Instant now() {
        return scope.now();
    }

    /** What it lets in, whatever the moment. */
    public List<Clause> clauses() {
        return scope.clauses();
    }

    public Map<String, Object> params() {
        return Map.copyOf(params);
    }

    private String clause(Clause clause) {
        StringBuilder sql = new StringBuilder("(1 = 1");
        if (clause.classId() != null) sql.append(" and p.class_id = ").append(param(clause.classId()));
        if (clause.authorId() != null) sql.append(" and p.author_id = ").append(param(clause.authorId()));
        if (clause.waiting())
            sql.append(" and (p.state = 'WAITING' or p.waiting_since is not null and p.live is "
                            + "not null and p.state <> 'BINNED' or ")
                    .append(UP)
                    .append(" and ")
                    .append(COMMENT_IN_PILE)
                    .append(')');
        if (clause.readers() != null) readers(sql, clause.readers());
        return sql.append(')').toString();
    }

    private void readers(StringBuilder sql, Readers readers) {
        sql.append(" and ")
                .append(UP)
                .append(" and (b.opens_at is null or b.opens_at <= :scope_now) and (b.closes_at is "
                        + "null or b.closes_at > :scope_now)")
                .append(" and (am.leaving is null or am.leaving <> 'HAND_OVER') and least(p.audience,"
                        + " b.widest, b.kind_widest, c.ceiling) >= ")
                .append(param(readers.atLeast().ordinal()));
        if (readers.inGroup() == null) sql.append(" and b.only_group is null");
        else
            sql.append(" and (b.only_group is null or b.only_group = ")
                    .append(param(readers.inGroup()))
                    .append(')');
        if (readers.sameGroup())
            sql.append(" and coalesce(b.group_id, am.group_id) = ").append(param(readers.inGroup()));
        if (readers.classOpen()) sql.append(" and c.open");
        if (readers.answered() != null) {
            sql.append(" and (answered.answer_first is not true");
            if (!readers.answered().isEmpty())
                sql.append(" or p.prompt_id in (")
                        .append(param(List.copyOf(readers.answered())))
                        .append(')');
            sql.append(')');
        }
        if (!readers.notIn().isEmpty())
            sql.append(" and p.class_id not in (")
                    .append(param(readers.notIn()))
                    .append(')');
    }

    private static <E extends Enum<E>> String quoted(E[] values, Predicate<E> which) {
        return Arrays.stream(values)
                .filter(which)
                .map(v -> "'" + v.name() + "'")
                .collect(Collectors.joining(", "));
    }

    private String param(Object value) {
        String name = "scope_" + params.size();
        params.put(name, value);
        return ":" + name;
    }
}
