-- What the household says of its days and its garden, for planning: one document, checked by its contract.
CREATE TABLE plan_book (
  id      INTEGER PRIMARY KEY CHECK (id = 1),
  body    TEXT    NOT NULL CHECK (json_valid(body)),
  version INTEGER NOT NULL
) STRICT;
-- The plan that people work by: a run each, as it was when they took it. Of a harvest that is still to come there is no batch yet.
CREATE TABLE plan_run (
  basket_id   TEXT PRIMARY KEY,
  batch_id    TEXT REFERENCES batch (id),
  taken_at    INTEGER NOT NULL,
  body        TEXT    NOT NULL CHECK (json_valid(body))
) STRICT, WITHOUT ROWID;
CREATE INDEX plan_run_batch ON plan_run (batch_id) WHERE batch_id IS NOT NULL;
