-- How classmates read each other's papers, as JSON; null if they do not.
alter table prompt add peers varchar(10000);
alter table prompt add peers_due_at timestamp(6) with time zone;
create index prompt_peers_due on prompt (peers_due_at);
-- Papers are given out once; who reviews is reminded once.
alter table prompt add peers_given_at timestamp(6) with time zone;
alter table prompt add peers_given_by bigint references person;
alter table prompt add peers_reminded_at timestamp(6) with time zone;

-- The words of a review by a classmate go the way of a comment.
alter table review add state varchar(10) default 'DRAFT' not null;
alter table review add sent_at timestamp(6) with time zone;
alter table review add waiting_since timestamp(6) with time zone;
alter table review add published_at timestamp(6) with time zone;
alter table review add ended_at timestamp(6) with time zone;
alter table review add ended_by bigint references person;
alter table review add helped varchar(1000);
alter table review add helped_at timestamp(6) with time zone;
create index review_waiting on review (waiting_since);
comment on column review.ended_at is 'when it was taken from its reader before it was sent';
comment on column review.ended_by is 'null where the clock did it';
comment on column review.helped is 'what its author says it helped with; null if they said nothing';

create table review_answer (
    review_id bigint not null references review on delete cascade,
    question  varchar(300) not null,
    no        int not null,
    answer    varchar(4000) not null,
    primary key (review_id, question)
);
comment on column review_answer.question is 'in its words: the prompt may ask another one since';
comment on column review_answer.no is 'its place among those of the prompt, from 0';
