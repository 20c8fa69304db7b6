-- One name for each thing: a part is called so in every table, what is written of it is the diary,
-- and the earlier build that a build is set beside is its reference.

ALTER TABLE item RENAME TO part;
ALTER TABLE item_use RENAME TO part_use;
ALTER TABLE part_use RENAME COLUMN item_id TO part_id;
ALTER TABLE item_drawn RENAME TO part_drawn;
ALTER TABLE part_drawn RENAME COLUMN item_id TO part_id;
ALTER TABLE item_fit RENAME TO part_fit;
ALTER TABLE part_fit RENAME COLUMN item_id TO part_id;
ALTER TABLE joint_item RENAME TO joint_part;
ALTER TABLE joint_part RENAME COLUMN item_id TO part_id;
ALTER TABLE weighing_load RENAME COLUMN item_id TO part_id;
ALTER TABLE true_mass RENAME COLUMN item_id TO part_id;
ALTER TABLE check_stood RENAME COLUMN item_id TO part_id;
ALTER TABLE stance_part RENAME COLUMN item_id TO part_id;
ALTER TABLE drive_pack RENAME COLUMN item_id TO part_id;
ALTER TABLE loadout_option RENAME COLUMN item_id TO part_id;
ALTER TABLE pattern RENAME COLUMN item_id TO part_id;

ALTER TABLE happening RENAME TO diary_entry;
ALTER TABLE happening_item RENAME TO diary_entry_part;
ALTER TABLE diary_entry_part RENAME COLUMN happening_id TO entry_id;
ALTER TABLE diary_entry_part RENAME COLUMN item_id TO part_id;

ALTER TABLE past_part RENAME TO reference_part;
ALTER TABLE build RENAME COLUMN past_name TO reference_name;

ALTER TABLE balance_check RENAME COLUMN part TO held_alone;

DROP INDEX item_of_drawer;
CREATE INDEX part_of_drawer ON part (thing_id) WHERE thing_id IS NOT NULL;
