-- Joints on the clock: spread at the server's time, with the times that hold for each.

CREATE TABLE joint (
  build_id       TEXT NOT NULL REFERENCES build ON DELETE CASCADE,
  id             TEXT NOT NULL,
  place          INTEGER NOT NULL,
  name           TEXT NOT NULL,
  adhesive       TEXT NOT NULL,
  spread_at      TEXT NOT NULL,
  close_after_s  REAL NOT NULL CHECK (close_after_s >= 0),
  close_by_s     REAL CHECK (close_by_s > 0),
  handle_after_s REAL NOT NULL CHECK (handle_after_s >= 0),
  strong_after_s REAL NOT NULL CHECK (strong_after_s >= 0),
  cleared        INTEGER NOT NULL DEFAULT 0 CHECK (cleared IN (0, 1)),
  PRIMARY KEY (build_id, id)
) STRICT, WITHOUT ROWID;

CREATE TABLE joint_item (
  build_id TEXT NOT NULL,
  joint_id TEXT NOT NULL,
  place    INTEGER NOT NULL,
  item_id  TEXT NOT NULL,
  PRIMARY KEY (build_id, joint_id, item_id),
  FOREIGN KEY (build_id, joint_id) REFERENCES joint ON DELETE CASCADE,
  FOREIGN KEY (build_id, item_id) REFERENCES item DEFERRABLE INITIALLY DEFERRED
) STRICT, WITHOUT ROWID;
