-- What a plane is trimmed and flown by: controls, throws, the list before flight, notes. Throws and
-- ticks are a log: they come in their order and stay.

ALTER TABLE flight ADD COLUMN landing TEXT CHECK (landing IN ('soft', 'hard', 'crash'));

CREATE TABLE control (
  build_id     TEXT NOT NULL REFERENCES build ON DELETE CASCADE,
  id           TEXT NOT NULL,
  place        INTEGER NOT NULL,
  name         TEXT NOT NULL,
  kind         TEXT NOT NULL,
  surface_id   TEXT NOT NULL,
  from_share   REAL NOT NULL CHECK (from_share BETWEEN 0 AND 1),
  to_share     REAL NOT NULL CHECK (to_share BETWEEN 0 AND 1),
  chord_share  REAL NOT NULL CHECK (chord_share > 0 AND chord_share <= 1),
  up_mm        REAL CHECK (up_mm >= 0),
  down_mm      REAL CHECK (down_mm >= 0),
  horn_mm      REAL CHECK (horn_mm > 0),
  arm_mm       REAL CHECK (arm_mm > 0),
  with_aileron INTEGER NOT NULL DEFAULT 0 CHECK (with_aileron IN (0, 1)),
  set_mm       REAL NOT NULL DEFAULT 0,
  PRIMARY KEY (build_id, id)
) STRICT, WITHOUT ROWID;

CREATE TABLE throw (
  build_id   TEXT NOT NULL REFERENCES build ON DELETE CASCADE,
  id         TEXT NOT NULL,
  place      INTEGER NOT NULL,
  at         TEXT NOT NULL,
  loadout    TEXT,
  seen       TEXT,
  distance_m REAL CHECK (distance_m > 0),
  height_m   REAL CHECK (height_m > 0),
  seconds    REAL CHECK (seconds > 0),
  wind_m_s   REAL CHECK (wind_m_s >= 0),
  note       TEXT NOT NULL DEFAULT '',
  set_aside  TEXT,
  auw_g      REAL CHECK (auw_g > 0),
  cg_mm      REAL,
  PRIMARY KEY (build_id, id)
) STRICT, WITHOUT ROWID;

CREATE TABLE throw_setting (
  build_id TEXT NOT NULL,
  throw_id TEXT NOT NULL,
  place    INTEGER NOT NULL,
  control  TEXT NOT NULL,
  mm       REAL NOT NULL,
  PRIMARY KEY (build_id, throw_id, place),
  FOREIGN KEY (build_id, throw_id) REFERENCES throw ON DELETE CASCADE
) STRICT, WITHOUT ROWID;

CREATE TABLE tick (
  build_id TEXT NOT NULL REFERENCES build ON DELETE CASCADE,
  id       TEXT NOT NULL,
  place    INTEGER NOT NULL,
  at       TEXT NOT NULL,
  line     TEXT NOT NULL,
  loadout  TEXT,
  done     INTEGER NOT NULL CHECK (done IN (0, 1)),
  stance   TEXT NOT NULL DEFAULT '',
  about    TEXT NOT NULL DEFAULT '',
  PRIMARY KEY (build_id, id)
) STRICT, WITHOUT ROWID;

CREATE TABLE stance_part (
  build_id TEXT NOT NULL REFERENCES build ON DELETE CASCADE,
  stance   TEXT NOT NULL,
  number   INTEGER NOT NULL,
  place    INTEGER NOT NULL,
  item_id  TEXT,
  x_mm     REAL,
  y_mm     REAL,
  z_mm     REAL,
  PRIMARY KEY (build_id, stance, place)
) STRICT, WITHOUT ROWID;

CREATE TABLE own_line (
  build_id TEXT NOT NULL REFERENCES build ON DELETE CASCADE,
  id       TEXT NOT NULL,
  place    INTEGER NOT NULL,
  words    TEXT NOT NULL,
  PRIMARY KEY (build_id, id)
) STRICT, WITHOUT ROWID;

CREATE TABLE note (
  build_id TEXT NOT NULL REFERENCES build ON DELETE CASCADE,
  id       TEXT NOT NULL,
  place    INTEGER NOT NULL,
  at       TEXT NOT NULL,
  kind     TEXT NOT NULL,
  words    TEXT NOT NULL,
  due      TEXT,
  done     INTEGER NOT NULL DEFAULT 0 CHECK (done IN (0, 1)),
  PRIMARY KEY (build_id, id)
) STRICT, WITHOUT ROWID;
