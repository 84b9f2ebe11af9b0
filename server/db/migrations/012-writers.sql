-- Which device of the house wrote an entry: its id, and its name as it was then. Nothing where this machine itself did.
ALTER TABLE entry ADD COLUMN writer_id TEXT CHECK (writer_id IS NULL OR length(writer_id) = 36);
ALTER TABLE entry ADD COLUMN writer_name TEXT;
-- What waits to be settled is few among many.
CREATE INDEX entry_unsettled ON entry (seq) WHERE kind = 'unsettled';
-- The view names the columns that it had when it was made.
DROP VIEW entry_in_force;
CREATE VIEW entry_in_force AS
SELECT e.* FROM entry e
WHERE e.kind <> 'void'
  AND NOT EXISTS (SELECT 1 FROM entry later WHERE later.replaces = e.id)
  AND NOT EXISTS (SELECT 1 FROM entry later WHERE later.kind = 'void' AND json_extract(later.body, '$.target') = e.id);
