-- The rack and the drawer, common to all builds of a workshop; what a lot is and costs; the budget.

CREATE TABLE rack_lot (
  id           TEXT PRIMARY KEY,
  place        INTEGER NOT NULL,
  name         TEXT NOT NULL,
  unit         TEXT NOT NULL CHECK (unit IN ('dm2', 'm', 'piece')),
  constant     REAL NOT NULL CHECK (constant > 0),
  doubt        REAL NOT NULL CHECK (doubt >= 0),
  source       TEXT NOT NULL DEFAULT '',
  kind         TEXT NOT NULL,
  faces        TEXT CHECK (faces IN ('both', 'one', 'none')),
  thickness_mm REAL CHECK (thickness_mm > 0),
  length_mm    REAL CHECK (length_mm > 0),
  width_mm     REAL CHECK (width_mm > 0),
  price        REAL CHECK (price >= 0),
  stock        REAL CHECK (stock >= 0),
  waste        REAL CHECK (waste >= 1),
  adhesive     TEXT NOT NULL DEFAULT ''
) STRICT, WITHOUT ROWID;

-- A build keeps a copy of what its lots say, so that it stands alone; `rack_id` says whose copy.
ALTER TABLE lot ADD COLUMN kind TEXT NOT NULL DEFAULT 'other';
ALTER TABLE lot ADD COLUMN faces TEXT CHECK (faces IN ('both', 'one', 'none'));
ALTER TABLE lot ADD COLUMN thickness_mm REAL CHECK (thickness_mm > 0);
ALTER TABLE lot ADD COLUMN length_mm REAL CHECK (length_mm > 0);
ALTER TABLE lot ADD COLUMN width_mm REAL CHECK (width_mm > 0);
ALTER TABLE lot ADD COLUMN price REAL CHECK (price >= 0);
ALTER TABLE lot ADD COLUMN stock REAL CHECK (stock >= 0);
ALTER TABLE lot ADD COLUMN waste REAL CHECK (waste >= 1);
ALTER TABLE lot ADD COLUMN adhesive TEXT NOT NULL DEFAULT '';
ALTER TABLE lot ADD COLUMN rack_id TEXT;
ALTER TABLE lot ADD COLUMN elsewhere REAL;
ALTER TABLE lot ADD COLUMN elsewhere_doubt REAL CHECK (elsewhere_doubt >= 0);
ALTER TABLE lot ADD COLUMN elsewhere_source TEXT NOT NULL DEFAULT '';
CREATE INDEX lot_of_rack ON lot (rack_id) WHERE rack_id IS NOT NULL;

CREATE TABLE thing (
  id             TEXT PRIMARY KEY,
  place          INTEGER NOT NULL,
  name           TEXT NOT NULL,
  kind           TEXT NOT NULL,
  listing_g      REAL NOT NULL CHECK (listing_g > 0 AND listing_g <= 5000),
  leads_included INTEGER NOT NULL CHECK (leads_included IN (0, 1)),
  price          REAL CHECK (price >= 0),
  note           TEXT NOT NULL DEFAULT ''
) STRICT, WITHOUT ROWID;

ALTER TABLE item ADD COLUMN thing_id TEXT;
ALTER TABLE item ADD COLUMN elsewhere_g REAL;
ALTER TABLE item ADD COLUMN elsewhere_doubt_g REAL CHECK (elsewhere_doubt_g >= 0);
ALTER TABLE item ADD COLUMN elsewhere_source TEXT NOT NULL DEFAULT '';
ALTER TABLE item ADD COLUMN budget_group TEXT;
ALTER TABLE item ADD COLUMN price REAL CHECK (price >= 0);
CREATE INDEX item_of_drawer ON item (thing_id) WHERE thing_id IS NOT NULL;

ALTER TABLE build ADD COLUMN budget_source TEXT;

CREATE TABLE allotment (
  build_id     TEXT NOT NULL REFERENCES build ON DELETE CASCADE,
  place        INTEGER NOT NULL,
  budget_group TEXT NOT NULL,
  grams        REAL NOT NULL CHECK (grams >= 0),
  PRIMARY KEY (build_id, budget_group)
) STRICT, WITHOUT ROWID;
