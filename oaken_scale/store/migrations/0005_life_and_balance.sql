-- The life of parts, the diary, checks of the balance, ballast, an earlier build to measure by.

ALTER TABLE item ADD COLUMN host_id TEXT;
ALTER TABLE item ADD COLUMN replaces TEXT;
ALTER TABLE item ADD COLUMN added_at TEXT;
ALTER TABLE item ADD COLUMN retired_at TEXT;
ALTER TABLE item ADD COLUMN slide_low_mm REAL;
ALTER TABLE item ADD COLUMN slide_high_mm REAL;

ALTER TABLE surface ADD COLUMN profile TEXT CHECK (profile IN ('flat', 'stepped', 'folded'));
ALTER TABLE surface ADD COLUMN thickness_mm REAL CHECK (thickness_mm > 0);
ALTER TABLE surface ADD COLUMN incidence_deg REAL NOT NULL DEFAULT 0;
ALTER TABLE surface ADD COLUMN twin INTEGER NOT NULL DEFAULT 0 CHECK (twin IN (0, 1));

ALTER TABLE scale ADD COLUMN port TEXT NOT NULL DEFAULT '';
ALTER TABLE scale ADD COLUMN line TEXT NOT NULL DEFAULT '';
ALTER TABLE scale ADD COLUMN baud INTEGER NOT NULL DEFAULT 9600 CHECK (baud > 0);

ALTER TABLE build ADD COLUMN thrust_line_z_mm REAL;
ALTER TABLE build ADD COLUMN mark_x_mm REAL;
ALTER TABLE build ADD COLUMN mark_tolerance_mm REAL NOT NULL DEFAULT 3 CHECK (mark_tolerance_mm > 0);
ALTER TABLE build ADD COLUMN past_name TEXT;
ALTER TABLE build ADD COLUMN allowance_share REAL CHECK (allowance_share >= 0);
ALTER TABLE build ADD COLUMN allowance_doubt REAL CHECK (allowance_doubt > 0);
ALTER TABLE build ADD COLUMN allowance_source TEXT NOT NULL DEFAULT '';
ALTER TABLE build ADD COLUMN finished_at TEXT;
ALTER TABLE build ADD COLUMN variant_of TEXT;

CREATE TABLE past_part (
  build_id TEXT NOT NULL REFERENCES build ON DELETE CASCADE,
  place    INTEGER NOT NULL,
  assembly TEXT NOT NULL,
  grams    REAL NOT NULL,
  PRIMARY KEY (build_id, place)
) STRICT, WITHOUT ROWID;

CREATE TABLE happening (
  build_id TEXT NOT NULL REFERENCES build ON DELETE CASCADE,
  id       TEXT NOT NULL,
  place    INTEGER NOT NULL,
  at       TEXT NOT NULL,
  kind     TEXT NOT NULL CHECK (kind IN ('repair', 'replace', 'trim', 'retire', 'move')),
  words    TEXT NOT NULL,
  PRIMARY KEY (build_id, id)
) STRICT, WITHOUT ROWID;

CREATE TABLE happening_item (
  build_id     TEXT NOT NULL,
  happening_id TEXT NOT NULL,
  place        INTEGER NOT NULL,
  item_id      TEXT NOT NULL,
  PRIMARY KEY (build_id, happening_id, item_id),
  FOREIGN KEY (build_id, happening_id) REFERENCES happening ON DELETE CASCADE,
  FOREIGN KEY (build_id, item_id) REFERENCES item DEFERRABLE INITIALLY DEFERRED
) STRICT, WITHOUT ROWID;

CREATE TABLE balance_check (
  build_id      TEXT NOT NULL REFERENCES build ON DELETE CASCADE,
  id            TEXT NOT NULL,
  place         INTEGER NOT NULL,
  at            TEXT NOT NULL,
  kind          TEXT NOT NULL CHECK (kind IN ('support', 'supports', 'sides', 'hang')),
  loadout       TEXT,
  x_mm          REAL NOT NULL,
  held_by       TEXT NOT NULL DEFAULT '',
  other_mm      REAL,
  reading_g     REAL CHECK (reading_g >= 0),
  scale_id      TEXT,
  z_mm          REAL,
  nose_down_deg REAL,
  doubt         REAL CHECK (doubt > 0),
  note          TEXT NOT NULL DEFAULT '',
  set_aside     TEXT,
  PRIMARY KEY (build_id, id)
) STRICT, WITHOUT ROWID;

CREATE TABLE ballast_spot (
  build_id TEXT NOT NULL REFERENCES build ON DELETE CASCADE,
  id       TEXT NOT NULL,
  place    INTEGER NOT NULL,
  name     TEXT NOT NULL,
  x_mm     REAL NOT NULL,
  y_mm     REAL NOT NULL,
  z_mm     REAL NOT NULL,
  most_g   REAL NOT NULL CHECK (most_g > 0),
  pair     INTEGER NOT NULL CHECK (pair IN (0, 1)),
  PRIMARY KEY (build_id, id)
) STRICT, WITHOUT ROWID;

CREATE TABLE ballast_piece (
  build_id TEXT NOT NULL REFERENCES build ON DELETE CASCADE,
  place    INTEGER NOT NULL,
  grams    REAL NOT NULL CHECK (grams > 0),
  PRIMARY KEY (build_id, place)
) STRICT, WITHOUT ROWID;
