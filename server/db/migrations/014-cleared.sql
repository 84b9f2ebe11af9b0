-- What was late and is not to be done any more, with the reason that somebody gave; the same thing asked for anew is another.
CREATE TABLE todo_cleared (
  batch_id   TEXT    NOT NULL REFERENCES batch (id),
  kind       TEXT    NOT NULL,
  from_at    INTEGER NOT NULL,
  reason     TEXT    NOT NULL,
  cleared_at INTEGER NOT NULL,
  PRIMARY KEY (batch_id, kind, from_at)
) STRICT, WITHOUT ROWID;
