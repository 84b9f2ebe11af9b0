-- Pictures of a food, and all that the log names.
CREATE INDEX entry_picture ON entry (at) WHERE kind = 'picture';
