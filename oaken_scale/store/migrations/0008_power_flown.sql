-- What else a drive hangs on, what was felt after its runs, the flights that were made with it; the
-- side of the thrust line; and what packs and motors in the drawer are listed with.

ALTER TABLE build ADD COLUMN thrust_line_y_mm REAL;

ALTER TABLE drive ADD COLUMN controller_least_cells INTEGER
  CHECK (controller_least_cells BETWEEN 1 AND 14);
ALTER TABLE drive ADD COLUMN controller_most_cells INTEGER
  CHECK (controller_most_cells BETWEEN 1 AND 14);
ALTER TABLE drive ADD COLUMN regulator_a REAL CHECK (regulator_a > 0);
ALTER TABLE drive ADD COLUMN regulator_drawn_a REAL CHECK (regulator_drawn_a >= 0);
ALTER TABLE drive ADD COLUMN regulator_most_cells INTEGER
  CHECK (regulator_most_cells BETWEEN 1 AND 14);
ALTER TABLE drive ADD COLUMN plug_a REAL CHECK (plug_a > 0);
ALTER TABLE drive ADD COLUMN wire_a REAL CHECK (wire_a > 0);
ALTER TABLE drive ADD COLUMN level_throttle REAL CHECK (level_throttle > 0 AND level_throttle <= 1);
ALTER TABLE drive ADD COLUMN full_share REAL NOT NULL DEFAULT 0.2
  CHECK (full_share BETWEEN 0 AND 1);
ALTER TABLE drive ADD COLUMN stand_port TEXT;
ALTER TABLE drive ADD COLUMN stand_baud INTEGER CHECK (stand_baud > 0);
ALTER TABLE drive ADD COLUMN stand_line TEXT;

ALTER TABLE drive_run ADD COLUMN lever REAL NOT NULL DEFAULT 1 CHECK (lever > 0);
ALTER TABLE drive_run ADD COLUMN lever_doubt REAL NOT NULL DEFAULT 0 CHECK (lever_doubt >= 0);
ALTER TABLE drive_run ADD COLUMN air_c REAL;
ALTER TABLE drive_run ADD COLUMN motor_c REAL;
ALTER TABLE drive_run ADD COLUMN controller_c REAL;
ALTER TABLE drive_run ADD COLUMN pack_c REAL;

CREATE TABLE flight (
  build_id     TEXT NOT NULL REFERENCES drive ON DELETE CASCADE,
  id           TEXT NOT NULL,
  place        INTEGER NOT NULL,
  at           TEXT NOT NULL,
  pack_id      TEXT NOT NULL,
  minutes      REAL NOT NULL CHECK (minutes > 0),
  put_back_mah REAL CHECK (put_back_mah > 0),
  mass_g       REAL CHECK (mass_g > 0),
  note         TEXT NOT NULL DEFAULT '',
  set_aside    TEXT,
  PRIMARY KEY (build_id, id),
  FOREIGN KEY (build_id, pack_id) REFERENCES drive_pack DEFERRABLE INITIALLY DEFERRED
) STRICT, WITHOUT ROWID;

ALTER TABLE thing ADD COLUMN cells INTEGER CHECK (cells BETWEEN 1 AND 14);
ALTER TABLE thing ADD COLUMN capacity_mah REAL CHECK (capacity_mah > 0);
ALTER TABLE thing ADD COLUMN c_rating REAL CHECK (c_rating > 0);
ALTER TABLE thing ADD COLUMN kv REAL CHECK (kv > 0);
ALTER TABLE thing ADD COLUMN most_a REAL CHECK (most_a > 0);
