-- A plane's drive: motor, controller, propellers and packs as listed, and the runs taken of it.

CREATE TABLE drive (
  build_id        TEXT NOT NULL PRIMARY KEY REFERENCES build ON DELETE CASCADE,
  motors          INTEGER NOT NULL CHECK (motors BETWEEN 1 AND 8),
  kv              REAL NOT NULL CHECK (kv > 0),
  mass_g          REAL NOT NULL CHECK (mass_g > 0),
  winding_ohm     REAL CHECK (winding_ohm > 0),
  idle_a          REAL CHECK (idle_a > 0),
  most_a          REAL CHECK (most_a > 0),
  controller_a    REAL CHECK (controller_a > 0),
  controller_burst_a REAL CHECK (controller_burst_a > 0),
  controller_burst_s REAL CHECK (controller_burst_s > 0)
) STRICT, WITHOUT ROWID;

CREATE TABLE drive_propeller (
  build_id    TEXT NOT NULL REFERENCES drive ON DELETE CASCADE,
  id          TEXT NOT NULL,
  place       INTEGER NOT NULL,
  name        TEXT NOT NULL,
  diameter_mm REAL NOT NULL CHECK (diameter_mm > 0),
  pitch_mm    REAL NOT NULL CHECK (pitch_mm > 0),
  PRIMARY KEY (build_id, id)
) STRICT, WITHOUT ROWID;

CREATE TABLE drive_pack (
  build_id     TEXT NOT NULL REFERENCES drive ON DELETE CASCADE,
  id           TEXT NOT NULL,
  place        INTEGER NOT NULL,
  name         TEXT NOT NULL,
  cells        INTEGER NOT NULL CHECK (cells BETWEEN 1 AND 14),
  capacity_mah REAL NOT NULL CHECK (capacity_mah > 0),
  c_rating     REAL CHECK (c_rating > 0),
  item_id      TEXT,
  PRIMARY KEY (build_id, id),
  FOREIGN KEY (build_id, item_id) REFERENCES item DEFERRABLE INITIALLY DEFERRED
) STRICT, WITHOUT ROWID;

CREATE TABLE drive_run (
  build_id        TEXT NOT NULL REFERENCES drive ON DELETE CASCADE,
  id              TEXT NOT NULL,
  place           INTEGER NOT NULL,
  at              TEXT NOT NULL,
  pack_id         TEXT NOT NULL,
  propeller_id    TEXT NOT NULL,
  rest_v_per_cell REAL NOT NULL CHECK (rest_v_per_cell > 0),
  note            TEXT NOT NULL DEFAULT '',
  set_aside       TEXT,
  PRIMARY KEY (build_id, id),
  FOREIGN KEY (build_id, pack_id) REFERENCES drive_pack DEFERRABLE INITIALLY DEFERRED,
  FOREIGN KEY (build_id, propeller_id) REFERENCES drive_propeller DEFERRABLE INITIALLY DEFERRED
) STRICT, WITHOUT ROWID;

CREATE TABLE drive_point (
  build_id  TEXT NOT NULL,
  run_id    TEXT NOT NULL,
  place     INTEGER NOT NULL,
  throttle  REAL NOT NULL CHECK (throttle BETWEEN 0 AND 1),
  thrust_gf REAL CHECK (thrust_gf >= 0),
  pack_a    REAL CHECK (pack_a >= 0),
  pack_v    REAL CHECK (pack_v >= 0),
  drawn_mah REAL NOT NULL DEFAULT 0 CHECK (drawn_mah >= 0),
  PRIMARY KEY (build_id, run_id, place),
  FOREIGN KEY (build_id, run_id) REFERENCES drive_run ON DELETE CASCADE
) STRICT, WITHOUT ROWID;
