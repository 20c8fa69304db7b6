-- Bodies, pods and booms of the drawing, and which panel of it a part follows until it is cut.

CREATE TABLE body (
  build_id TEXT NOT NULL REFERENCES build ON DELETE CASCADE,
  id       TEXT NOT NULL,
  place    INTEGER NOT NULL,
  name     TEXT NOT NULL CHECK (name <> ''),
  shape    TEXT NOT NULL CHECK (shape IN ('box', 'tube')),
  y_mm     REAL NOT NULL,
  twin     INTEGER NOT NULL CHECK (twin IN (0, 1)),
  has_top  INTEGER NOT NULL CHECK (has_top IN (0, 1)),
  PRIMARY KEY (build_id, id)
) STRICT, WITHOUT ROWID;

CREATE TABLE frame (
  build_id  TEXT NOT NULL,
  body_id   TEXT NOT NULL,
  place     INTEGER NOT NULL,
  x_mm      REAL NOT NULL,
  z_mm      REAL NOT NULL,
  width_mm  REAL NOT NULL CHECK (width_mm > 0),
  height_mm REAL NOT NULL CHECK (height_mm > 0),
  PRIMARY KEY (build_id, body_id, place),
  FOREIGN KEY (build_id, body_id) REFERENCES body ON DELETE CASCADE
) STRICT, WITHOUT ROWID;

CREATE TABLE item_drawn (
  build_id TEXT NOT NULL,
  item_id  TEXT NOT NULL,
  drawn_id TEXT NOT NULL CHECK (drawn_id <> ''),
  panel    TEXT NOT NULL DEFAULT '',
  is_cut   INTEGER NOT NULL DEFAULT 0 CHECK (is_cut IN (0, 1)),
  PRIMARY KEY (build_id, item_id),
  FOREIGN KEY (build_id, item_id) REFERENCES item ON DELETE CASCADE
) STRICT, WITHOUT ROWID;

-- The lines that a part is folded along, each two corners [mm], as JSON.
ALTER TABLE pattern ADD COLUMN folds TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(folds));
