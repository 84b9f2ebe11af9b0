-- Small hygrometers for jars, with what they showed over salt.
CREATE TABLE hygrometer (
  id        TEXT PRIMARY KEY CHECK (length(id) = 36),
  name      TEXT    NOT NULL CHECK (length(name) BETWEEN 1 AND 80),
  -- [{ salt, shown }], newest of each salt.
  readings  TEXT    NOT NULL CHECK (json_valid(readings)),
  tested_at INTEGER,
  version   INTEGER NOT NULL DEFAULT 1
) STRICT;

-- The newest air of a room is looked up when trays are loaded.
CREATE INDEX entry_air ON entry (at) WHERE kind = 'air';
