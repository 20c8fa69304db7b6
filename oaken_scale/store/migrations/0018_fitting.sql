-- Bays and pods by their inner sizes, and what parts take up, plug into and sit in.

CREATE TABLE bay (
  build_id  TEXT NOT NULL REFERENCES build ON DELETE CASCADE,
  id        TEXT NOT NULL,
  place     INTEGER NOT NULL,
  name      TEXT NOT NULL CHECK (name <> ''),
  x_mm      REAL NOT NULL,
  length_mm REAL NOT NULL CHECK (length_mm > 0),
  width_mm  REAL NOT NULL CHECK (width_mm > 0),
  height_mm REAL NOT NULL CHECK (height_mm > 0),
  y_mm      REAL NOT NULL,
  z_mm      REAL NOT NULL,
  PRIMARY KEY (build_id, id)
) STRICT, WITHOUT ROWID;

CREATE TABLE item_fit (
  build_id   TEXT NOT NULL,
  item_id    TEXT NOT NULL,
  length_mm  REAL CHECK (length_mm > 0),
  width_mm   REAL CHECK (width_mm > 0),
  height_mm  REAL CHECK (height_mm > 0),
  lead_mm    REAL CHECK (lead_mm >= 0),
  plugs_into TEXT,
  bay_id     TEXT,
  role       TEXT CHECK (role IN ('receiver', 'transmitter', 'propeller')),
  PRIMARY KEY (build_id, item_id),
  FOREIGN KEY (build_id, item_id) REFERENCES item ON DELETE CASCADE
) STRICT, WITHOUT ROWID;
