-- What was in the mill or on the trays before is asked of every batch: which allergens may have come along.
CREATE INDEX entry_grind   ON entry (json_extract(body, '$.grinderId'), at) WHERE kind = 'grind';
CREATE INDEX entry_machine ON entry (json_extract(body, '$.machineId'), at) WHERE kind = 'load';
CREATE INDEX entry_tick    ON entry (run_id) WHERE kind = 'tick';
