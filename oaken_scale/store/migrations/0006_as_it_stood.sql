-- A check of the balance keeps the plane as it was; what finished builds found of guesses and
-- listings; what a file is (a demo is laid out afresh at every start, anything else never).

CREATE TABLE about (
  word  TEXT NOT NULL PRIMARY KEY,
  value TEXT NOT NULL
) STRICT, WITHOUT ROWID;

CREATE TABLE check_stood (
  build_id TEXT NOT NULL,
  check_id TEXT NOT NULL,
  place    INTEGER NOT NULL,
  item_id  TEXT NOT NULL,
  x_mm     REAL,
  y_mm     REAL NOT NULL DEFAULT 0,
  z_mm     REAL NOT NULL DEFAULT 0,
  PRIMARY KEY (build_id, check_id, item_id),
  FOREIGN KEY (build_id, check_id) REFERENCES balance_check ON DELETE CASCADE,
  FOREIGN KEY (build_id, item_id) REFERENCES item DEFERRABLE INITIALLY DEFERRED
) STRICT, WITHOUT ROWID;

CREATE TABLE habit (
  build_id TEXT NOT NULL REFERENCES build ON DELETE CASCADE,
  place    INTEGER NOT NULL,
  pedigree TEXT NOT NULL CHECK (pedigree IN ('guess', 'listing')),
  factor   REAL NOT NULL CHECK (factor > 0),
  doubt    REAL NOT NULL CHECK (doubt > 0),
  squares  REAL NOT NULL CHECK (squares >= 0),
  weighed  INTEGER NOT NULL CHECK (weighed >= 0),
  PRIMARY KEY (build_id, pedigree)
) STRICT, WITHOUT ROWID;

-- One stick of hot-melt glue holds 20 g, 8.3 m of bead; it is not a bead of 200 mm.
UPDATE rack_lot SET length_mm = 8300 WHERE id = 'hot-melt' AND length_mm = 200;
UPDATE lot SET length_mm = 8300 WHERE rack_id = 'hot-melt' AND length_mm = 200;
