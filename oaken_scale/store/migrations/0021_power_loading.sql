-- Power loading may be a target. What may be one stood in the table's own words, so it is made anew.

CREATE TABLE target_made_anew (
  build_id     TEXT NOT NULL REFERENCES build ON DELETE CASCADE,
  kind         TEXT NOT NULL
               CHECK (kind IN
                 ('auw', 'wing_loading', 'thrust_to_weight', 'power_loading', 'balance')),
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
INSERT INTO target_made_anew (build_id, kind, place, low, high, source, balance_unit)
  SELECT build_id, kind, place, low, high, source, balance_unit FROM target;
DROP TABLE target;
ALTER TABLE target_made_anew RENAME TO target;
