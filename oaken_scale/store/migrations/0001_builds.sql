-- A build, its parts, and the log of its weighings. Masses g, lengths mm, thrust gf.

CREATE TABLE build (
  id              TEXT PRIMARY KEY,
  name            TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 80),
  purpose         TEXT NOT NULL DEFAULT '',
  layout          TEXT NOT NULL DEFAULT '',
  notes           TEXT NOT NULL DEFAULT '',
  thrust_gf       REAL CHECK (thrust_gf > 0 AND thrust_gf <= 20000),
  thrust_doubt_gf REAL CHECK (thrust_doubt_gf >= 0),
  thrust_source   TEXT NOT NULL DEFAULT '',
  revision        INTEGER NOT NULL DEFAULT 1 CHECK (revision >= 1),
  created_at      TEXT NOT NULL,
  put_away_at     TEXT
) STRICT;

CREATE TABLE lot (
  build_id TEXT NOT NULL REFERENCES build ON DELETE CASCADE,
  id       TEXT NOT NULL,
  place    INTEGER NOT NULL,
  name     TEXT NOT NULL,
  unit     TEXT NOT NULL CHECK (unit IN ('dm2', 'm', 'piece')),
  constant REAL NOT NULL CHECK (constant > 0),
  doubt    REAL NOT NULL CHECK (doubt >= 0),
  source   TEXT NOT NULL DEFAULT '',
  PRIMARY KEY (build_id, id)
) STRICT, WITHOUT ROWID;

CREATE TABLE item (
  build_id   TEXT NOT NULL REFERENCES build ON DELETE CASCADE,
  id         TEXT NOT NULL,
  place      INTEGER NOT NULL,
  name       TEXT NOT NULL,
  pedigree   TEXT NOT NULL
             CHECK (pedigree IN
               ('guess', 'listing', 'calculated', 'joint', 'covering', 'allowance')),
  assembly   TEXT NOT NULL DEFAULT '',
  stated_g   REAL CHECK (abs(stated_g) <= 5000),
  doubt_g    REAL CHECK (doubt_g >= 0),
  pieces     INTEGER NOT NULL DEFAULT 1 CHECK (pieces BETWEEN 1 AND 1000),
  x_mm       REAL,
  y_mm       REAL,
  z_mm       REAL,
  reference  TEXT CHECK (reference IN ('nose', 'leading_edge')),
  doubt_mm   REAL CHECK (doubt_mm >= 0),
  option     INTEGER NOT NULL DEFAULT 0 CHECK (option IN (0, 1)),
  retired    INTEGER NOT NULL DEFAULT 0 CHECK (retired IN (0, 1)),
  CHECK ((x_mm IS NULL) = (reference IS NULL)),
  PRIMARY KEY (build_id, id)
) STRICT, WITHOUT ROWID;

CREATE TABLE item_use (
  build_id TEXT NOT NULL,
  item_id  TEXT NOT NULL,
  place    INTEGER NOT NULL,
  lot_id   TEXT NOT NULL,
  amount   REAL NOT NULL,
  PRIMARY KEY (build_id, item_id, place),
  FOREIGN KEY (build_id, item_id) REFERENCES item ON DELETE CASCADE,
  FOREIGN KEY (build_id, lot_id) REFERENCES lot DEFERRABLE INITIALLY DEFERRED
) STRICT, WITHOUT ROWID;

CREATE TABLE surface (
  build_id TEXT NOT NULL REFERENCES build ON DELETE CASCADE,
  id       TEXT NOT NULL,
  place    INTEGER NOT NULL,
  name     TEXT NOT NULL,
  role     TEXT NOT NULL CHECK (role IN ('wing', 'tail', 'canard', 'fin')),
  PRIMARY KEY (build_id, id)
) STRICT, WITHOUT ROWID;

CREATE TABLE section (
  build_id   TEXT NOT NULL,
  surface_id TEXT NOT NULL,
  place      INTEGER NOT NULL,
  x_le_mm    REAL NOT NULL,
  y_mm       REAL NOT NULL,
  z_mm       REAL NOT NULL,
  chord_mm   REAL NOT NULL CHECK (chord_mm >= 0),
  PRIMARY KEY (build_id, surface_id, place),
  FOREIGN KEY (build_id, surface_id) REFERENCES surface ON DELETE CASCADE
) STRICT, WITHOUT ROWID;

CREATE TABLE scale (
  build_id          TEXT NOT NULL REFERENCES build ON DELETE CASCADE,
  id                TEXT NOT NULL,
  place             INTEGER NOT NULL,
  name              TEXT NOT NULL,
  step_g            REAL NOT NULL CHECK (step_g > 0),
  repeatability_g   REAL CHECK (repeatability_g >= 0),
  calibration_doubt REAL NOT NULL CHECK (calibration_doubt >= 0),
  capacity_g        REAL NOT NULL CHECK (capacity_g > 0),
  simulated         INTEGER NOT NULL DEFAULT 0 CHECK (simulated IN (0, 1)),
  PRIMARY KEY (build_id, id)
) STRICT, WITHOUT ROWID;

CREATE TABLE loadout (
  build_id TEXT NOT NULL REFERENCES build ON DELETE CASCADE,
  id       TEXT NOT NULL,
  place    INTEGER NOT NULL,
  name     TEXT NOT NULL,
  PRIMARY KEY (build_id, id)
) STRICT, WITHOUT ROWID;

CREATE TABLE loadout_option (
  build_id   TEXT NOT NULL,
  loadout_id TEXT NOT NULL,
  place      INTEGER NOT NULL,
  item_id    TEXT NOT NULL,
  PRIMARY KEY (build_id, loadout_id, item_id),
  FOREIGN KEY (build_id, loadout_id) REFERENCES loadout ON DELETE CASCADE,
  FOREIGN KEY (build_id, item_id) REFERENCES item DEFERRABLE INITIALLY DEFERRED
) STRICT, WITHOUT ROWID;

CREATE TABLE target (
  build_id     TEXT NOT NULL REFERENCES build ON DELETE CASCADE,
  kind         TEXT NOT NULL
               CHECK (kind IN ('auw', 'wing_loading', 'thrust_to_weight', 'balance')),
  place        INTEGER NOT NULL,
  low          REAL,
  high         REAL,
  source       TEXT NOT NULL DEFAULT '',
  balance_unit TEXT NOT NULL
               CHECK (balance_unit IN ('percent_mac', 'mm_from_nose', 'mm_from_leading_edge')),
  CHECK (low IS NOT NULL OR high IS NOT NULL),
  CHECK (low IS NULL OR high IS NULL OR low < high),
  PRIMARY KEY (build_id, kind)
) STRICT, WITHOUT ROWID;

-- The weighing log is append-only. Setting a reading aside, and taking it back in, are new rows.

CREATE TABLE weighing (
  number    INTEGER PRIMARY KEY AUTOINCREMENT,
  build_id  TEXT NOT NULL REFERENCES build,
  id        TEXT NOT NULL,
  at        TEXT NOT NULL,
  scale_id  TEXT NOT NULL,
  reading_g REAL NOT NULL CHECK (reading_g > 0 AND reading_g <= 20000),
  known_g   REAL NOT NULL CHECK (known_g >= 0),
  typed     TEXT NOT NULL DEFAULT '',
  note      TEXT NOT NULL DEFAULT '',
  UNIQUE (build_id, id),
  FOREIGN KEY (build_id, scale_id) REFERENCES scale DEFERRABLE INITIALLY DEFERRED
) STRICT;

CREATE INDEX weighing_of_build ON weighing (build_id, number);

CREATE TABLE weighing_load (
  weighing INTEGER NOT NULL REFERENCES weighing,
  build_id TEXT NOT NULL,
  item_id  TEXT NOT NULL,
  count    REAL NOT NULL CHECK (count > 0),
  PRIMARY KEY (weighing, item_id),
  FOREIGN KEY (build_id, item_id) REFERENCES item DEFERRABLE INITIALLY DEFERRED
) STRICT, WITHOUT ROWID;

CREATE TABLE weighing_sample (
  weighing INTEGER NOT NULL REFERENCES weighing,
  build_id TEXT NOT NULL,
  lot_id   TEXT NOT NULL,
  amount   REAL NOT NULL CHECK (amount > 0),
  PRIMARY KEY (weighing, lot_id),
  FOREIGN KEY (build_id, lot_id) REFERENCES lot DEFERRABLE INITIALLY DEFERRED
) STRICT, WITHOUT ROWID;

CREATE TABLE setting_aside (
  number   INTEGER PRIMARY KEY AUTOINCREMENT,
  weighing INTEGER NOT NULL REFERENCES weighing,
  at       TEXT NOT NULL,
  reason   TEXT  -- NULL: the reading speaks again
) STRICT;

CREATE INDEX setting_aside_of_weighing ON setting_aside (weighing, number);

CREATE TRIGGER weighing_stays BEFORE UPDATE ON weighing
BEGIN SELECT raise(ABORT, 'the weighing log is append-only'); END;
CREATE TRIGGER weighing_is_kept BEFORE DELETE ON weighing
BEGIN SELECT raise(ABORT, 'the weighing log is append-only'); END;
CREATE TRIGGER load_stays BEFORE UPDATE ON weighing_load
BEGIN SELECT raise(ABORT, 'the weighing log is append-only'); END;
CREATE TRIGGER load_is_kept BEFORE DELETE ON weighing_load
BEGIN SELECT raise(ABORT, 'the weighing log is append-only'); END;
CREATE TRIGGER sample_stays BEFORE UPDATE ON weighing_sample
BEGIN SELECT raise(ABORT, 'the weighing log is append-only'); END;
CREATE TRIGGER sample_is_kept BEFORE DELETE ON weighing_sample
BEGIN SELECT raise(ABORT, 'the weighing log is append-only'); END;
CREATE TRIGGER setting_aside_stays BEFORE UPDATE ON setting_aside
BEGIN SELECT raise(ABORT, 'the weighing log is append-only'); END;
CREATE TRIGGER setting_aside_is_kept BEFORE DELETE ON setting_aside
BEGIN SELECT raise(ABORT, 'the weighing log is append-only'); END;

-- What a simulated scale knows and nobody else: the true masses of a simulated build.

CREATE TABLE true_mass (
  build_id TEXT NOT NULL,
  item_id  TEXT NOT NULL,
  mass_g   REAL NOT NULL,
  PRIMARY KEY (build_id, item_id),
  FOREIGN KEY (build_id, item_id) REFERENCES item ON DELETE CASCADE
) STRICT, WITHOUT ROWID;

CREATE TABLE true_constant (
  build_id TEXT NOT NULL,
  lot_id   TEXT NOT NULL,
  constant REAL NOT NULL,
  PRIMARY KEY (build_id, lot_id),
  FOREIGN KEY (build_id, lot_id) REFERENCES lot ON DELETE CASCADE
) STRICT, WITHOUT ROWID;
