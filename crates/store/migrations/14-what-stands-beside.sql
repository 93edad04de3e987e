-- Jars of something else in the same canner, as JSON: they take room and water, and everything gets the longest time.
ALTER TABLE canner_load ADD COLUMN also TEXT NOT NULL DEFAULT '[]';

-- An oblong canner has a length beside its width.
ALTER TABLE canner ADD COLUMN inner_length_mm REAL;
