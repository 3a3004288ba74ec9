-- Mail about what waits may go to another address than the account's, once somebody who reads mail there has said so.

alter table email_wish rename to email_wish_before;
create table email_wish (
    person_id  bigint not null references person,
    email      varchar(254) not null,
    own        boolean not null,
    token_hash varchar(64) not null unique,
    expires_at timestamp(6) with time zone not null,
    primary key (person_id, email, own)
);
comment on table email_wish is 'addresses that somebody who reads mail there has still to confirm';
comment on column email_wish.own is 'whether it is to be the address of the account';
insert into email_wish (person_id, email, own, token_hash, expires_at) select person_id, email, true, token_hash, expires_at from email_wish_before;
drop table email_wish_before;

create table email_confirmed (
    person_id bigint not null references person,
    email     varchar(254) not null,
    primary key (person_id, email)
);
comment on table email_confirmed is 'addresses besides the one of the account to which mail for a person may go';
