-- What is cut out of a sheet for one piece of a part: rings of corners [mm] as JSON, the outer one
-- first.

CREATE TABLE pattern (
  build_id TEXT NOT NULL,
  item_id  TEXT NOT NULL,
  grain    TEXT NOT NULL CHECK (grain IN ('free', 'along', 'across')),
  layers   INTEGER NOT NULL CHECK (layers BETWEEN 1 AND 20),
  rings    TEXT NOT NULL CHECK (json_valid(rings)),
  PRIMARY KEY (build_id, item_id),
  FOREIGN KEY (build_id, item_id) REFERENCES item ON DELETE CASCADE
) STRICT, WITHOUT ROWID;
