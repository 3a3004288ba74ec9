-- Those who gather one address are looked at together.
create index source_feed on source (feed_address);
