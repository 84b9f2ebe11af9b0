-- Foods and cards of the household's own, as their file has them.
CREATE TABLE own_food (
  key     TEXT PRIMARY KEY CHECK (length(key) BETWEEN 1 AND 60),
  body    TEXT    NOT NULL CHECK (json_valid(body)),
  version INTEGER NOT NULL DEFAULT 1
) STRICT, WITHOUT ROWID;

CREATE TABLE own_card (
  food_key TEXT    NOT NULL,
  card_key TEXT    NOT NULL CHECK (length(card_key) BETWEEN 1 AND 80),
  body     TEXT    NOT NULL CHECK (json_valid(body)),
  version  INTEGER NOT NULL DEFAULT 1,
  PRIMARY KEY (food_key, card_key)
) STRICT, WITHOUT ROWID;

-- Ice that a freeze dryer holds, g; not known where missing.
ALTER TABLE machine ADD COLUMN ice_g REAL CHECK (ice_g IS NULL OR (ice_g > 0 AND ice_g <= 100000));

-- Cautions accepted, and what was picked of a plant, are asked for over all batches. The first is a view: made anew with the others.
CREATE TABLE accepted_caution (
  rule     TEXT NOT NULL,
  batch_id TEXT NOT NULL REFERENCES batch (id),
  PRIMARY KEY (rule, batch_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX accepted_caution_batch ON accepted_caution (batch_id);
CREATE INDEX entry_intake ON entry (json_extract(body, '$.foodKey'), at) WHERE kind = 'intake';
