-- What the tag of a build on the shelf says, so that a long shelf opens without working every build
-- out. It can be worked out again at any time; it holds for one revision and one way of reckoning.

CREATE TABLE tag (
  build_id  TEXT PRIMARY KEY REFERENCES build ON DELETE CASCADE,
  revision  INTEGER NOT NULL,
  reckoning TEXT NOT NULL,
  says      TEXT NOT NULL
) STRICT;
