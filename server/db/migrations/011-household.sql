-- What a batch that has left its machine teaches of its food: solids, yields, recovery, and what was done to it (JSON).
ALTER TABLE batch_view ADD COLUMN taught TEXT CHECK (taught IS NULL OR json_valid(taught));
-- Why it is not to teach, where somebody left it out.
ALTER TABLE batch_view ADD COLUMN left_out TEXT;
-- When it went into its machine: seasons are told apart by it.
ALTER TABLE batch_view ADD COLUMN loaded_at INTEGER;
CREATE INDEX batch_view_taught ON batch_view (food_key, number) WHERE taught IS NOT NULL AND left_out IS NULL;
