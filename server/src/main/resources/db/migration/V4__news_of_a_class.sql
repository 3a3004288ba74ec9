-- What came up in one class since a moment, without looking at the rest of the school.
create index event_news on event (class_id, kind, at);
create index comment_news on comment (class_id, published_at);
drop index event_kind;

-- Nearly all texts are published: an index that begins with the state leads through all of them whenever somebody asks for what is published.
drop index post_waiting;
drop index comment_waiting;
create index post_waiting on post (class_id, waiting_since);
create index comment_waiting on comment (class_id, waiting_since);
