-- What a prompt takes as its answer beside posts that were written for it, and of whom.
alter table prompt add column by_groups boolean default false not null;
alter table prompt add column also_category bigint references category on delete set null;
alter table prompt add column also_tag boolean default false not null;
alter table prompt add column also_time boolean default false not null;
alter table prompt add column comments_first boolean default false not null;
create index prompt_also_category on prompt (also_category);

-- The posts that a prompt names to be answered with comments.
create table prompt_comment_on (
    prompt_id bigint not null references prompt on delete cascade,
    post_id   bigint not null references post on delete cascade,
    primary key (prompt_id, post_id)
);
create index prompt_comment_on_post on prompt_comment_on (post_id);

-- Where comments are the whole task: how many of them its marker read.
alter table marking add column comments_read int default 0 not null;

-- Whose paper is whose group's, where a person said so or the groups were kept as they were when it was due.
create table paper_member (
    prompt_id  bigint not null references prompt on delete cascade,
    student_id bigint not null references person,
    group_id   bigint,
    apart      boolean not null,
    by_hand    boolean not null,
    primary key (prompt_id, student_id)
);
create index paper_member_student on paper_member (student_id);
alter table prompt add column members_kept boolean default false not null;
