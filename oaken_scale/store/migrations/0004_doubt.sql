-- Containers; readings recorded in place of others; readings that were looked at and accepted.

CREATE TABLE container (
  build_id TEXT NOT NULL REFERENCES build ON DELETE CASCADE,
  id       TEXT NOT NULL,
  place    INTEGER NOT NULL,
  name     TEXT NOT NULL,
  mass_g   REAL NOT NULL CHECK (mass_g > 0),
  doubt_g  REAL NOT NULL CHECK (doubt_g >= 0),
  PRIMARY KEY (build_id, id)
) STRICT, WITHOUT ROWID;

ALTER TABLE weighing ADD COLUMN corrects TEXT;

CREATE TABLE acceptance (
  number   INTEGER PRIMARY KEY AUTOINCREMENT,
  weighing INTEGER NOT NULL REFERENCES weighing,
  at       TEXT NOT NULL,
  accepted INTEGER NOT NULL CHECK (accepted IN (0, 1))
) STRICT;

CREATE INDEX acceptance_of_weighing ON acceptance (weighing, number);

CREATE TRIGGER acceptance_stays BEFORE UPDATE ON acceptance
BEGIN SELECT raise(ABORT, 'the weighing log is append-only'); END;
CREATE TRIGGER acceptance_is_kept BEFORE DELETE ON acceptance
BEGIN SELECT raise(ABORT, 'the weighing log is append-only'); END;
