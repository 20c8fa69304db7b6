-- What a bottle or can holds, a glue's own times, what matters when a material is chosen (as JSON),
-- and where and how soon it is had; for the rack and for the builds' copies of it.

ALTER TABLE rack_lot ADD COLUMN holds_g REAL CHECK (holds_g > 0);
ALTER TABLE rack_lot ADD COLUMN close_after_s REAL CHECK (close_after_s >= 0);
ALTER TABLE rack_lot ADD COLUMN close_by_s REAL CHECK (close_by_s >= 0);
ALTER TABLE rack_lot ADD COLUMN handle_after_s REAL CHECK (handle_after_s >= 0);
ALTER TABLE rack_lot ADD COLUMN strong_after_s REAL CHECK (strong_after_s >= 0);
ALTER TABLE rack_lot ADD COLUMN qualities TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(qualities));
ALTER TABLE rack_lot ADD COLUMN shop TEXT NOT NULL DEFAULT '';
ALTER TABLE rack_lot ADD COLUMN lead_days REAL CHECK (lead_days >= 0);

ALTER TABLE lot ADD COLUMN holds_g REAL CHECK (holds_g > 0);
ALTER TABLE lot ADD COLUMN close_after_s REAL CHECK (close_after_s >= 0);
ALTER TABLE lot ADD COLUMN close_by_s REAL CHECK (close_by_s >= 0);
ALTER TABLE lot ADD COLUMN handle_after_s REAL CHECK (handle_after_s >= 0);
ALTER TABLE lot ADD COLUMN strong_after_s REAL CHECK (strong_after_s >= 0);
ALTER TABLE lot ADD COLUMN qualities TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(qualities));
ALTER TABLE lot ADD COLUMN shop TEXT NOT NULL DEFAULT '';
ALTER TABLE lot ADD COLUMN lead_days REAL CHECK (lead_days >= 0);
