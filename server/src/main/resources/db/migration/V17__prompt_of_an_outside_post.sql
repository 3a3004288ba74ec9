-- By what it is known which prompt an outside post answers: its tag, its time, or a person, whom no later look overrules.
alter table post add column matched_by varchar(8);
