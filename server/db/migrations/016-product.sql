-- What a basket gave: dry pieces, or powder with the pieces that were not ground.
ALTER TABLE batch_view ADD COLUMN product_g REAL;
