-- Reports that are being made for a week of a class, and those that were.
create table report_run (
    id        bigint generated always as identity primary key,
    class_id  bigint not null references class on delete cascade,
    monday    date not null,
    template  varchar(60) not null,
    by_id     bigint not null references person,
    begun_at  timestamp(6) with time zone not null,
    ended_at  timestamp(6) with time zone,
    cancelled boolean default false not null
);
comment on column report_run.by_id is 'in whose name they are sent; what this person may not do any more is not done';
create index report_run_of_class on report_run (class_id, monday);

create table report_line (
    run_id     bigint not null references report_run on delete cascade,
    student_id bigint not null references person,
    note       varchar(2000) default '' not null,
    outcome    varchar(12),
    primary key (run_id, student_id)
);
comment on column report_line.outcome is 'null while its turn has not come';
create index report_line_of_student on report_line (student_id);

create table week_report (
    id          bigint generated always as identity primary key,
    class_id    bigint not null references class on delete cascade,
    student_id  bigint not null references person,
    monday      date not null,
    template    varchar(60) not null,
    by_id       bigint references person,
    title       varchar(400) not null,
    html        clob not null,
    note        varchar(2000) not null,
    fingerprint char(64) not null,
    sent_at     timestamp(6) with time zone not null,
    mail_id     bigint references mail on delete set null,
    unique (class_id, monday, student_id)
);
comment on table week_report is 'what a student was told of a week, as it was told last';
create index week_report_of_student on week_report (student_id);
