-- Since when a rack stands without heat: its food moves water meanwhile, which is worked out when it is asked for.
ALTER TABLE batch_view ADD COLUMN off_from INTEGER;
