-- The order of the day: what was moved by hand, what was done and how long it took, own steps.

CREATE TABLE day_order (
  build_id TEXT NOT NULL REFERENCES build ON DELETE CASCADE,
  place    INTEGER NOT NULL,
  step     TEXT NOT NULL,
  PRIMARY KEY (build_id, place)
) STRICT, WITHOUT ROWID;

CREATE TABLE day_done (
  build_id  TEXT NOT NULL REFERENCES build ON DELETE CASCADE,
  place     INTEGER NOT NULL,
  step      TEXT NOT NULL,
  kind      TEXT NOT NULL,
  at        TEXT NOT NULL,
  minutes   REAL CHECK (minutes > 0),
  usual_min REAL CHECK (usual_min > 0),
  PRIMARY KEY (build_id, place)
) STRICT, WITHOUT ROWID;

CREATE TABLE own_step (
  build_id TEXT NOT NULL REFERENCES build ON DELETE CASCADE,
  id       TEXT NOT NULL,
  place    INTEGER NOT NULL,
  name     TEXT NOT NULL CHECK (name <> ''),
  minutes  REAL NOT NULL CHECK (minutes > 0),
  PRIMARY KEY (build_id, id)
) STRICT, WITHOUT ROWID;
