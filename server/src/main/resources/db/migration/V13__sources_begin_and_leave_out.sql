-- What comes from a source can begin on a chosen day, and single entries can be left out.
alter table source add column begins_on date;
alter table source_entry add column left_out boolean default false not null;
