-- How warm it was when the heat came on, and what the kettle had shown of itself by then: how far its rate may be off, and how
-- its sauce slows down. What was begun before says nothing of either.
ALTER TABLE cook ADD COLUMN start_c REAL;
ALTER TABLE cook ADD COLUMN rate_doubt REAL CHECK (rate_doubt > 0);
ALTER TABLE cook ADD COLUMN thickens REAL;
ALTER TABLE cook ADD COLUMN thickens_doubt REAL CHECK (thickens_doubt > 0);

-- A reading that surprises, and that somebody stands by.
ALTER TABLE cook_event ADD COLUMN sure INTEGER NOT NULL DEFAULT 0 CHECK (sure IN (0, 1));

-- Walls that lean.
ALTER TABLE kettle ADD COLUMN top_diameter_mm REAL CHECK (top_diameter_mm > 0);

-- What a kettle has shown is looked up by its last cook-downs.
CREATE INDEX cook_ended_by_kettle ON cook (kettle_id, ended_at) WHERE ended_at IS NOT NULL AND removed_at IS NULL;

-- How long a canner takes to boil is looked up by its last loads.
CREATE INDEX IF NOT EXISTS canner_load_by_canner ON canner_load (canner_id);
