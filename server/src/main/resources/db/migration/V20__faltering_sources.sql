-- Since when a source cannot be read, and whether those whom it concerns were told of it.
alter table source add column faltering_since timestamp(6) with time zone;
alter table source add column faltering_told boolean default false not null;
