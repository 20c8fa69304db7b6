-- What the workshop wants to buy, where it is had, and what an order costs to be brought.

CREATE TABLE wanted (
  id     TEXT PRIMARY KEY,
  place  INTEGER NOT NULL,
  name   TEXT NOT NULL CHECK (name <> ''),
  count  INTEGER NOT NULL CHECK (count >= 1),
  is_had INTEGER NOT NULL CHECK (is_had IN (0, 1))
) STRICT, WITHOUT ROWID;

CREATE TABLE offer (
  wanted_id TEXT NOT NULL REFERENCES wanted ON DELETE CASCADE,
  place     INTEGER NOT NULL,
  shop      TEXT NOT NULL,
  price     REAL NOT NULL CHECK (price >= 0),
  lead_days REAL CHECK (lead_days >= 0),
  PRIMARY KEY (wanted_id, place)
) STRICT, WITHOUT ROWID;

CREATE TABLE freight (
  shop      TEXT PRIMARY KEY,
  cost      REAL NOT NULL CHECK (cost >= 0),
  free_from REAL CHECK (free_from >= 0)
) STRICT, WITHOUT ROWID;
